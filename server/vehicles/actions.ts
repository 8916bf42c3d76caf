"use server";

import type { Draft, Problem } from "@/core/book";
import { asWriter, type Answer } from "../auth/as-writer";
import { BookRefusal } from "../book/book";
import { bookActions } from "../book/actions";
import { shopDay } from "../shop/clock";
import { learnedOf, withLearned } from "./learned";
import { vehicleBook } from "./store";

const book = bookActions(vehicleBook, (d) => d.id);

export const beginVehicle = async (): Promise<Answer<{ key: string }>> => book.begin();
export const newVehicleVersion = async (id: string): Promise<Answer<{ key: string }>> =>
  book.newVersion(id);
/** A new version with the dimensions that the shop's own cars have; a second person signs it as any. */
export const proposeVehicle = async (id: string): Promise<Answer<{ key: string }>> =>
  asWriter("write-drafts", (p) => ({
    key: vehicleBook.draftFrom(String(id), p, (newest) => {
      const doc = withLearned(newest, learnedOf(newest), shopDay());
      if (!doc)
        throw new BookRefusal(
          "The cars of this shop agree with the book: there is nothing to propose.",
        );
      return doc;
    }),
  }));
export const copyVehicle = async (id: string): Promise<Answer<{ key: string }>> => book.copy(id);
export const takeVehicleFile = async (text: string): Promise<Answer<{ key: string }>> =>
  book.takeFile(text);
export const keepVehicleDraft = async (
  key: string,
  doc: Draft,
  revision: number,
): Promise<Answer<{ problems: Problem[]; revision: number }>> => book.keep(key, doc, revision);
export const signVehicleDraft = async (key: string): Promise<Answer<{ id: string }>> =>
  book.sign(key);
export const dropVehicleDraft = async (key: string): Promise<Answer<object>> => book.drop(key);

"use server";

import type { Draft, Problem } from "@/core/book";
import type { Answer } from "../auth/as-writer";
import { bookActions } from "../book/actions";
import { vehicleBook } from "./store";

const book = bookActions(vehicleBook, (d) => d.id);

export const beginVehicle = async (): Promise<Answer<{ key: string }>> => book.begin();
export const newVehicleVersion = async (id: string): Promise<Answer<{ key: string }>> =>
  book.newVersion(id);
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

"use server";

import type { Draft, Problem } from "@/core/book";
import type { Answer } from "../auth/as-writer";
import { bookActions } from "../book/actions";
import { sheetBook } from "./store";

const book = bookActions(sheetBook, (d) => d.id);

export const beginSheet = async (): Promise<Answer<{ key: string }>> => book.begin();
export const newSheetVersion = async (id: string): Promise<Answer<{ key: string }>> =>
  book.newVersion(id);
export const copySheet = async (id: string): Promise<Answer<{ key: string }>> => book.copy(id);
export const takeSheetFile = async (text: string): Promise<Answer<{ key: string }>> =>
  book.takeFile(text);
export const keepSheetDraft = async (
  key: string,
  doc: Draft,
  revision: number,
): Promise<Answer<{ problems: Problem[]; revision: number }>> => book.keep(key, doc, revision);
export const signSheetDraft = async (key: string): Promise<Answer<{ id: string }>> =>
  book.sign(key);
export const dropSheetDraft = async (key: string): Promise<Answer<object>> => book.drop(key);

"use server";

import type { SheetDraft, SheetProblem } from "@/core/sheet";
import { asWriter, type Answer } from "../auth/as-writer";
import { checkDraft, discardDraft, draftFrom, importSheet, saveDraft } from "./store";

export const newVersion = async (id: string): Promise<Answer<{ key: string }>> =>
  asWriter((p) => ({ key: draftFrom(String(id), p) }));

export const takeSheetFile = async (text: string): Promise<Answer<{ key: string }>> =>
  asWriter((p) => ({ key: importSheet(String(text).slice(0, 500_000), p) }));

export const keepDraft = async (key: string, doc: SheetDraft): Promise<Answer<{ problems: SheetProblem[] }>> =>
  asWriter((p) => ({ problems: saveDraft(String(key), doc, p).problems }));

export const signDraft = async (key: string): Promise<Answer<{ id: string; version: number }>> =>
  asWriter((p) => {
    const { id, version } = checkDraft(String(key), p);
    return { id, version };
  });

export const dropDraft = async (key: string): Promise<Answer<object>> =>
  asWriter(() => {
    discardDraft(String(key));
    return {};
  });

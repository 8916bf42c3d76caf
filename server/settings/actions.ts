"use server";

import { asWriter, type Answer } from "../auth/as-writer";
import { importRuleBook, setGlassPolicy, setRuleBook } from "./store";

/** What the shop is bound by is the lead's to change. */
const LEAD = ["lead"] as const;

export const chooseGlassPolicy = async (policy: string): Promise<Answer<object>> =>
  asWriter(() => {
    setGlassPolicy(String(policy));
    return {};
  }, LEAD);

export const writeRuleBook = async (json: unknown): Promise<Answer<object>> =>
  asWriter(() => {
    setRuleBook(json);
    return {};
  }, LEAD);

export const takeRuleBookFile = async (text: string): Promise<Answer<object>> =>
  asWriter(() => {
    importRuleBook(String(text).slice(0, 1_000_000));
    return {};
  }, LEAD);

"use server";

import { asWriter, type Answer } from "../auth/as-writer";
import {
  importRuleBook,
  setDrivePolicy,
  setGlassPolicy,
  setLetterhead,
  setReleaseRule,
  setRuleBook,
  setShopClock,
} from "./store";

export const chooseGlassPolicy = async (policy: string): Promise<Answer<object>> =>
  asWriter("write-rules", (me) => {
    setGlassPolicy(String(policy), me);
    return {};
  });

export const chooseReleaseRule = async (rule: unknown): Promise<Answer<object>> =>
  asWriter("write-rules", (me) => {
    setReleaseRule(rule, me);
    return {};
  });

export const chooseDrivePolicy = async (policy: unknown): Promise<Answer<object>> =>
  asWriter("write-rules", (me) => {
    setDrivePolicy(policy, me);
    return {};
  });

export const writeRuleBook = async (json: unknown): Promise<Answer<object>> =>
  asWriter("write-rules", (me) => {
    setRuleBook(json, me);
    return {};
  });

export const takeRuleBookFile = async (text: string): Promise<Answer<object>> =>
  asWriter("write-rules", (me) => {
    importRuleBook(String(text).slice(0, 1_000_000), me);
    return {};
  });

export const chooseShopClock = async (clock: unknown): Promise<Answer<object>> =>
  asWriter("write-rules", (me) => {
    setShopClock(clock, me);
    return {};
  });

export const writeLetterhead = async (letterhead: unknown): Promise<Answer<object>> =>
  asWriter("write-rules", (me) => {
    setLetterhead(letterhead, me);
    return {};
  });

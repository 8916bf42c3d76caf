"use server";

import type { ZeroJudgement } from "@/core/kit";
import { asWriter, type Answer } from "../auth/as-writer";
import { checkInstrument, checkStand } from "./store";

export const zeroCheck = async (
  standId: string,
  readings: Record<string, number>,
): Promise<Answer<{ judged: ZeroJudgement }>> =>
  asWriter((p) => ({ judged: checkStand(String(standId), readings, p) }));

export const instrumentChecked = async (id: string, against: string): Promise<Answer<object>> =>
  asWriter((p) => {
    checkInstrument(String(id), String(against).slice(0, 120), p);
    return {};
  });

"use server";

import type { KitKind, ZeroJudgement } from "@/core/kit";
import { asWriter, type Answer } from "../auth/as-writer";
import { makeFeedToken } from "../feed/feed";
import { checkInstrument, checkStand, KitRefusal, writeKit } from "./store";

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

export const writeKitItem = async (kind: KitKind, doc: unknown, isNew: boolean): Promise<Answer<object>> =>
  asWriter((p) => {
    if (!["board", "stand", "instrument"].includes(kind)) throw new KitRefusal("Choose what kind of kit it is.");
    writeKit(kind, doc, isNew === true, p);
    return {};
  });

export const feedToken = async (instrumentId: string): Promise<Answer<{ token: string }>> =>
  asWriter((p) => ({ token: makeFeedToken(String(instrumentId), p) }));

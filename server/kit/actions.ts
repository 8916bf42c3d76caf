"use server";

import { KIT_KINDS, type KitKind, type ZeroJudgement } from "@/core/kit";
import { asWriter, type Answer } from "../auth/as-writer";
import { makeFeedToken, revokeFeedToken } from "../feed/feed";
import { keepBayFloor } from "./bay-floors";
import { importKit } from "./file";
import { checkInstrument, checkStand, KitRefusal, writeKit } from "./store";

export const zeroCheck = async (
  standId: string,
  readings: Record<string, number>,
): Promise<Answer<{ judged: ZeroJudgement }>> =>
  asWriter("check-kit", (p) => ({ judged: checkStand(String(standId), readings, p) }));

export const instrumentChecked = async (id: string, against: string): Promise<Answer<object>> =>
  asWriter("check-kit", (p) => {
    checkInstrument(String(id), String(against).slice(0, 120), p);
    return {};
  });

export const writeKitItem = async (
  kind: KitKind,
  doc: unknown,
  isNew: boolean,
): Promise<Answer<object>> =>
  asWriter("write-kit", (p) => {
    if (!KIT_KINDS.includes(kind)) throw new KitRefusal("Choose what kind of kit it is.");
    writeKit(kind, doc, isNew === true, p);
    return {};
  });

export const takeKitFile = async (text: string): Promise<Answer<{ added: number }>> =>
  asWriter("write-kit", (p) => ({ added: importKit(String(text).slice(0, 1_000_000), p) }));

export const feedToken = async (instrumentId: string): Promise<Answer<{ token: string }>> =>
  asWriter("give-feed-token", (p) => ({ token: makeFeedToken(String(instrumentId), p) }));

export const revokeFeed = async (instrumentId: string): Promise<Answer<object>> =>
  asWriter("give-feed-token", (p) => {
    revokeFeedToken(String(instrumentId), p);
    return {};
  });

/** Keeps the floor that was read on a job for its bay. */
export const keepFloor = async (jobId: string, bay: string): Promise<Answer<object>> =>
  asWriter("check-kit", (p) => {
    keepBayFloor(String(jobId), String(bay), p);
    return {};
  });

"use server";

import QRCode from "qrcode";
import { asWriter, type Answer } from "../auth/as-writer";
import { redirect } from "next/navigation";
import { startSession } from "../auth/session";
import { makeStandCode, StandRefusal, takeStandCode } from "./codes";

/** A code for a phone, as a link and as the dark squares of its picture. */
export async function standCode(
  jobId: string,
): Promise<Answer<{ path: string; expiresAt: string }>> {
  return asWriter("command-devices", (p) => {
    const { code, expiresAt } = makeStandCode(String(jobId), p);
    return { path: `/join/${code}`, expiresAt };
  });
}

/** The picture of a link: rows of dark (true) and light squares. */
export async function squaresOf(text: string): Promise<boolean[][]> {
  const { modules } = QRCode.create(Buffer.from(String(text).slice(0, 300)).toString("utf8"), {
    errorCorrectionLevel: "M",
  });
  return Array.from({ length: modules.size }, (_, y) =>
    Array.from({ length: modules.size }, (__, x) => Boolean(modules.get(y, x))),
  );
}

/**
 * Uses a code up and signs this phone in for its one job. Answers with what went wrong, or moves on
 * to the stand.
 */
export async function joinStand(code: string): Promise<{ message: string }> {
  let jobId: string;
  try {
    const taken = takeStandCode(String(code).slice(0, 80));
    ({ jobId } = taken);
    await startSession(taken.personId, jobId);
  } catch (error) {
    if (error instanceof StandRefusal) return { message: error.message };
    throw error;
  }
  redirect(`/jobs/${jobId}/stand`);
}

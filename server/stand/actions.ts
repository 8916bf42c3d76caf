"use server";

import QRCode from "qrcode";
import { asWriter, type Answer } from "../auth/as-writer";
import { makeStandCode } from "./codes";

/** A code for a phone, as a link and as the dark squares of its picture. */
export async function standCode(jobId: string): Promise<Answer<{ path: string; expiresAt: string }>> {
  return asWriter((p) => {
    const { code, expiresAt } = makeStandCode(String(jobId), p);
    return { path: `/join/${code}`, expiresAt };
  });
}

/** The picture of a link: rows of dark (true) and light squares. */
export async function squaresOf(text: string): Promise<boolean[][]> {
  const { modules } = QRCode.create(String(text).slice(0, 300), { errorCorrectionLevel: "M" });
  return Array.from({ length: modules.size }, (_, y) => Array.from({ length: modules.size }, (__, x) => Boolean(modules.get(y, x)))); // prettier-ignore
}

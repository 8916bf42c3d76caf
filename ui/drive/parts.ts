import { packed, type LoggedSample } from "@/core/drive/log";
import type { TabletEvent } from "@/core/job";

/** A part of the log is written when it is so long, seconds. */
export const PART_S = 60;
/** A row of a part counts from its beginning, and not for longer than this, milliseconds. */
const SPAN_MS = 3_600_000;

/** Seconds of a drive as lines of the job, so many to a line. */
export function partsOf(
  driveId: string,
  calibrationId: string,
  samples: readonly LoggedSample[],
): Extract<TabletEvent, { kind: "drive-part" }>[] {
  const parts: LoggedSample[][] = [];
  for (const s of samples) {
    const part = parts.at(-1);
    const [first, last] = [part?.[0], part?.at(-1)];
    const joins = first && last && s.atMs >= first.atMs && s.atMs - first.atMs < SPAN_MS;
    if (part && joins && part.length < PART_S) part.push(s);
    else parts.push([s]);
  }
  return parts.map((part) => {
    const startMs = part[0]!.atMs;
    const rows = part.map((s) => packed(s, startMs));
    return { kind: "drive-part", calibrationId, driveId, startMs, rows };
  });
}

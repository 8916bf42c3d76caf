import { createHash } from "node:crypto";
import { copyFileSync, mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { beforeAll, describe, expect, it } from "vitest";
import { eventsOf, judgeTarget, stageStates, targetInHand, viewsOf } from "@/core/job";
import { buildRecord, readRecord, record1Schema, recordSchema } from "@/core/record";
import { eventsAfter, verifyJob } from "../jobs/log";
import { findJob, type JobRow } from "../jobs/store";

import { keptDocument } from "../report/documents";
import { db } from "./client";

/** What each job of the stored shop was, as the program that wrote it saw it. */
type Expected = {
  number: number;
  lines: number;
  settled: { seq: number; chance: number; alongMm: number; readings: number }[];
  stages: Record<string, string>;
  verdict: string;
  next: string;
  board: { xMm: number; yMm: number; headingRad: number; covariance: number[][] };
  readings: string[];
  kept: { record: string | null; report: string | null }[];
};

const EXPECTED = JSON.parse(
  readFileSync("tests/fixtures/shop-one-sheet.expected.json", "utf8"),
) as Expected[];

/**
 * A shop written when a job held one sheet, one stand and one run: the demo's jobs, a near and a
 * far board, two boards beside each other, handed over, opened again, half way. It must open, read
 * and verify as it did then.
 */
beforeAll(() => {
  const file = path.join(mkdtempSync(path.join(tmpdir(), "iridel-older-")), "shop.sqlite");
  copyFileSync("tests/fixtures/shop-one-sheet.sqlite", file);
  process.env.IRIDEL_DB = file;
});

const jobOf = (number: number): JobRow => {
  const id = db().$client.prepare("SELECT id FROM jobs WHERE number = ?").pluck().get(number);
  return findJob(id as string)!;
};

describe.each(EXPECTED)("job $number of a shop of one sheet a job", (was) => {
  it("keeps its log, settlements and papers, byte for byte, and its chain closes", () => {
    const job = jobOf(was.number);
    const events = eventsAfter(job.id);
    expect(verifyJob(job.id)).toMatchObject({ ok: true, lines: was.lines });
    const settled = eventsOf(events, "settled").map((e) => ({
      seq: e.seq,
      chance: e.body.chance,
      alongMm: "alongMm" in e.body ? e.body.alongMm : NaN,
      readings: e.body.readingIds.length,
    }));
    expect(settled).toEqual(was.settled);
    was.kept.forEach((kept, i) => {
      for (const kind of ["record", "report"] as const) {
        const bytes = keptDocument(job.id, kind, i + 1);
        const sha = Buffer.isBuffer(bytes)
          ? createHash("sha256").update(bytes).digest("hex")
          : null;
        expect(sha, `${kind} ${i + 1}`).toBe(kept[kind]);
      }
    });
  });

  it("has its kept records read as one of today's, with what they said", () => {
    const job = jobOf(was.number);
    was.kept.forEach((kept, i) => {
      if (!kept.record) return;
      const bytes = keptDocument(job.id, "record", i + 1) as Buffer;
      const stored = record1Schema.parse(JSON.parse(bytes.toString("utf8")));
      const record = recordSchema.parse(readRecord(stored));
      const { targets, run } = record.calibrations[0]!;
      expect(run).toEqual(stored.run);
      const last = targets.find((t) => t.name === stored.setOut.place.name)!;
      expect(last.readings).toEqual(stored.setOut.readings);
      expect(last.settled?.chance).toBe(stored.setOut.settled?.chance);
      const errors = last.settled?.quantities.map((q) => q.error);
      const { alongMm, acrossMm, twistRad, heightMm } = stored.setOut.settled!;
      expect(errors).toEqual([alongMm, acrossMm, twistRad, heightMm]);
      // What was accepted before the last place is still told, where a place was accepted twice the last time.
      for (const e of stored.setOut.earlier)
        expect(targets.find((t) => t.name === e.place)!.settled).toBeTruthy();
    });
  });

  it("stands where it stood: stages, verdict, next act, readings in doubt, place of the board", () => {
    const job = jobOf(was.number);
    const events = eventsAfter(job.id);
    const view = viewsOf(job.ground)[0]!;
    const stages = stageStates(events, job.ground).map((s) => [s.id, s.state]);
    // There, the drive of a sheet that goes on to the road was no sheet's: it is this sheet's now, and
    // open under Drive.
    const onward = view.sheet.method === "static-then-dynamic";
    const owed = onward ? { owed: "settled", drive: "open" } : {};
    expect(Object.fromEntries(stages)).toEqual({ ...was.stages, ...owed });
    const { id } = targetInHand(view, events);
    const { solution, verdict, next } = judgeTarget(view, events, id);
    // What was settled stays so. Where the board would be judged anew, more is asked of it today (how
    // its stand leans): the verdict may only have become more careful.
    const careful = verdict.kind !== was.verdict;
    if (careful) expect([verdict.kind, was.verdict === "read"]).toEqual(["read", false]);
    else expect(next.kind).toBe(was.next);
    expect(solution.readings.map((r) => r.state)).toEqual(was.readings);
    // It may differ from the old estimate by what either claims not to know.
    for (const [i, key] of (["xMm", "yMm", "headingRad"] as const).entries()) {
      const sigma = Math.hypot(
        Math.sqrt(was.board.covariance[i]?.[i] ?? 0),
        Math.sqrt(solution.boardCovariance?.[i]?.[i] ?? 0),
      );
      expect(Math.abs(solution.board.pose[key] - was.board[key])).toBeLessThanOrEqual(sigma + 1e-6);
    }
    expect(buildRecord(job.number, job.ground, events, true)).toMatchObject({
      job: { number: was.number },
    });
  });
});

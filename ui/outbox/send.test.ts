import { describe, expect, it } from "vitest";
import type { EventBody, TabletEvent } from "@/core/job";
import type { Line, LineState } from "./lines";
import { heldBehind, nextChunk } from "./send";

const at = "2026-11-03T09:00:00.000Z";
const reading: TabletEvent = {
  kind: "reading",
  slotId: "tape-fl-l",
  typed: "2900",
  shown: 2900,
  sigma: 1.7,
  instrumentId: "T-3",
};
const touch: TabletEvent = { kind: "touch", touch: "cranked" };
const movedCar: TabletEvent = { kind: "touch", touch: "moved-car" };
const pause: TabletEvent = { kind: "pause", reason: "a part" };

describe("what is sent next", () => {
  const refused: LineState = { kind: "refused", why: "no" };
  const line = (
    n: number,
    send: TabletEvent,
    state: LineState = { kind: "waiting" },
    who = "ines",
  ): Line => ({
    n,
    id: `l${n}`,
    jobId: "j",
    author: { id: who, name: who, initials: "XX" },
    takenAt: at,
    baseSeq: 1,
    send,
    show: send as EventBody,
    state,
  });
  const ids = (lines: Line[], who = "ines", size = 40): string[] =>
    nextChunk(lines, who, size).map((l) => l.id);

  it("is one person's, in order, some at a time", () => {
    const lines = [1, 2, 3, 4, 5].map((n) =>
      line(n, reading, undefined, n === 3 ? "oskar" : "ines"),
    );
    expect(ids(lines, "ines", 3)).toEqual(["l1", "l2", "l4"]);
    expect(ids(lines, "oskar")).toEqual(["l3"]);
  });
  it("goes round a refused reading, and stops at the stand behind a refused touch, at everything behind a moved car", () => {
    const after = (first: TabletEvent): string[] =>
      ids([line(1, first, refused), line(2, reading), line(3, pause)]);
    expect(after(reading)).toEqual(["l2", "l3"]);
    expect(after(touch)).toEqual(["l3"]);
    expect(after(movedCar)).toEqual([]);
    const struck = line(1, movedCar, { kind: "struck", at });
    expect(ids([struck, line(2, reading)])).toEqual(["l2"]);
    expect(heldBehind(line(2, reading), [line(1, touch, refused)])?.id).toBe("l1");
  });
});

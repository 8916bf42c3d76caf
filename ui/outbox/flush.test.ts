import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import type { EventBody, JobEvent, TabletEvent } from "@/core/job";
import { stubLocalStorage } from "@/tests/local-storage";
import { flush } from "./flush";
import { keepLines, linesOf } from "./storage";

const INES = { id: "ines", name: "Ines Tarbet", initials: "IT" };
const OSKAR = { id: "oskar", name: "Oskar Veld", initials: "OV" };
const at = "2026-11-03T09:00:00.000Z";
const READING: TabletEvent = {
  kind: "reading",
  slotId: "tape-fl-l",
  typed: "2900",
  shown: 2900,
  sigma: 1.7,
  instrumentId: "T-3",
};
const TOUCH: TabletEvent = { kind: "touch", touch: "cranked" };

/** A shop that keeps order between people, and finds nothing proved. */
const log: JobEvent[] = [];
const write = (id: string, by: typeof INES, body: TabletEvent): void =>
  void log.push({ id, seq: log.length + 1, at, by, body: body as EventBody });
function shop(_: string, request: { body: string }): Promise<Response> {
  const { baseSeq, events } = JSON.parse(request.body) as {
    baseSeq: number;
    events: { id: string; body: TabletEvent }[];
  };
  const missing = log.filter((e) => e.seq > baseSeq && !events.some((l) => l.id === e.id));
  if (missing.some((e) => e.by.id !== INES.id))
    return Promise.resolve(Response.json({ missing }, { status: 409 }));
  const outcomes = events.map(({ id, body }) =>
    body.kind === "settle"
      ? { id, outcome: "refused", why: "not proved" }
      : { id, outcome: "written" },
  );
  for (const e of events) if (e.body.kind !== "settle") write(e.id, INES, e.body);
  return Promise.resolve(Response.json({ events: log.slice(baseSeq), outcomes }));
}

beforeAll(() => {
  vi.stubGlobal("fetch", shop);
  stubLocalStorage();
});
afterAll(() => vi.unstubAllGlobals());

const keep = (id: string, send: TabletEvent, baseSeq: number): Promise<void> =>
  keepLines([
    {
      id,
      jobId: "j",
      author: INES,
      takenAt: at,
      baseSeq,
      send,
      show: send as EventBody,
      state: { kind: "waiting" },
    },
  ]);
const told: string[] = [];
const send = () =>
  flush({
    jobId: "j",
    authorId: "ines",
    handedOn: null,
    absorb: () => undefined,
    unsettled: (why) => void told.push(why),
  });

it("a settlement that is refused is said and let go: nothing that was typed hangs on it", async () => {
  await keep("asked", { kind: "settle" }, log.length);
  expect(await send()).toMatchObject({ kind: "done" });
  expect(told).toEqual(["not proved"]);
  expect(await linesOf("j")).toEqual([]);
});

describe("a line that reaches the queue only after its writer's own line was answered", () => {
  it("is no conflict: it was written in knowledge of it; what a colleague wrote still is one", async () => {
    write("taken-in", INES, TOUCH);
    await keep("first", READING, 1);
    expect(await send()).toMatchObject({ kind: "done" });
    // Written before the answer came, kept after it: it says that it has seen nothing newer than
    // the beginning.
    await keep("second", TOUCH, 1);
    expect(await send()).toMatchObject({ kind: "done" });
    expect(log.map((e) => e.id)).toEqual(["taken-in", "first", "second"]);
    write("theirs", OSKAR, TOUCH);
    await keep("third", TOUCH, 3);
    expect(await send()).toMatchObject({ kind: "conflict", theirs: [{ id: "theirs" }] });
    expect((await linesOf("j")).map((l) => l.id)).toEqual(["third"]);
  });
});

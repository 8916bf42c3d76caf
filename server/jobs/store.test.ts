import { eq } from "drizzle-orm";
import { beforeAll, describe, expect, it } from "vitest";
import type { EventBody } from "@/core/job";
import { madeUpVin } from "@/demo/data/vehicles";
import { technician } from "@/demo/technician";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { db } from "../db/client";
import { jobTickets as kept } from "../db/schema";
import { commandRun } from "./run";
import { appendEvents, eventsAfter, findJob, JobRefusal, peopleOn, seen, takeIn, type NewEvent } from "./store";
import { jobTickets } from "./tickets";

beforeAll(() => openTestShop());

const INTAKE = {
  vin: madeUpVin("0NVLS2DA7R100417"),
  vinReason: null,
  vehicleId: "norvane-lisse",
  happenings: [{ event: "glass-out", place: "windshield" }],
  sheetId: "lisse-forward",
  sheetVersion: 2,
  standId: "S-1",
  customer: "Elin Marsh",
  plate: "",
  order: "",
  rearToeDeg: null,
  answers: {},
  complaint: "",
};
const event = (id: string, body: EventBody | { kind: "settle" }, takenAt = new Date().toISOString()): NewEvent => ({ id, takenAt, body }); // prettier-ignore
const reading = (id: string, slotId = "tape-fl-l", shown = 2876): NewEvent =>
  event(id, { kind: "reading", slotId, typed: String(shown), shown, sigma: 1.7, instrumentId: "T-3" });

describe("taking in", () => {
  it.each([
    [{ vin: "0NVLS2DA7R100417" }, /VIN: A VIN has 17 characters/],
    [{ vehicleId: "no-such" }, /Vehicle: choose one/],
    [{ sheetVersion: 1 }, /Sheet: this version is no longer the newest/],
    [{ sheetId: "tarn-forward", sheetVersion: 3 }, /Sheet: .* is not for the Lisse/],
    [{ standId: "S-9" }, /Stand: choose one/],
    [{ vehicleId: "brannoch-tarn", sheetId: "tarn-forward", sheetVersion: 3 }, /Rear toe: the sheet squares the board to the thrust line/], // prettier-ignore
  ])("refuses %j and names the field", (wrong, message) => {
    const before = jobTickets().length;
    expect(() => takeIn({ ...INTAKE, ...wrong }, INES)).toThrow(message);
    expect(jobTickets()).toHaveLength(before);
  });
  it("keeps a doubtful VIN with its reason, freezes the documents in force, and numbers jobs one after another", () => {
    const first = findJob(takeIn({ ...INTAKE, vin: "0NVLS2DA7R100417", vinReason: "plate is worn" }, INES))!;
    const second = findJob(takeIn(INTAKE, OSKAR))!;
    expect(first.ground.intake.vinReason).toBe("plate is worn");
    expect(first.ground.sheet).toMatchObject({ id: "lisse-forward", version: 2 });
    expect(second.number).toBe(first.number + 1);
  });
});

describe("the log of a job", () => {
  it("takes events once, however often they are sent", () => {
    const id = takeIn(INTAKE, INES);
    const batch = [reading("reading-a"), reading("reading-b", "tape-fr-r")];
    expect(appendEvents(id, 1, batch, INES)).toMatchObject({ ok: true });
    expect(appendEvents(id, 1, batch, INES)).toMatchObject({ ok: true });
    expect(eventsAfter(id).map((e) => e.seq)).toEqual([1, 2, 3]);
  });
  it("takes what follows a batch whose answer was lost: a tablet's own writing is never its conflict", () => {
    const id = takeIn(INTAKE, INES);
    expect(appendEvents(id, 1, [reading("own-a")], INES)).toMatchObject({ ok: true });
    // The answer never came, and more was written meanwhile: both are sent, in knowledge of what was seen then.
    expect(appendEvents(id, 1, [reading("own-a"), reading("own-b")], INES)).toMatchObject({ ok: true });
    expect(eventsAfter(id).map((e) => e.id).slice(1)).toEqual(["own-a", "own-b"]); // prettier-ignore
    appendEvents(id, 3, [reading("other")], OSKAR);
    expect(appendEvents(id, 1, [reading("own-b"), reading("own-c")], INES)).toMatchObject({ ok: false, missing: [{ id: "own-a" }, { id: "other" }] }); // prettier-ignore
  });
  it("answers a writer who has not seen everything with what is missing, and writes nothing", () => {
    const id = takeIn(INTAKE, INES);
    appendEvents(id, 1, [reading("first-one")], INES);
    const late = appendEvents(id, 1, [reading("late-one")], OSKAR);
    expect(late).toMatchObject({ ok: false, missing: [{ id: "first-one", by: { initials: "IT" } }] });
    expect(eventsAfter(id)).toHaveLength(2);
    expect(appendEvents(id, 2, [reading("late-one")], OSKAR)).toMatchObject({ ok: true });
  });
  it("writes a batch whole or not at all", () => {
    const id = takeIn(INTAKE, INES);
    const batch = [reading("good-one"), event("bad-one", { kind: "strike", target: "nothing", reason: "gone" })];
    expect(() => appendEvents(id, 1, batch, INES)).toThrow(/not in this job/);
    expect(eventsAfter(id)).toHaveLength(1);
    expect(findJob(id)!.head).toBe(1);
  });
  it("settles only what its own reckoning proves, and strikes only what may be struck", () => {
    const id = takeIn(INTAKE, INES);
    expect(() => appendEvents(id, 1, [event("too-soon", { kind: "settle" })], INES)).toThrow(/do not prove/);
    const taken = eventsAfter(id)[0]!.id;
    expect(() => appendEvents(id, 1, [event("strike-intake", { kind: "strike", target: taken, reason: "no" })], INES)).toThrow(/cannot be struck/); // prettier-ignore
    expect(() => appendEvents("no-such-job", 0, [reading("lost-one")], INES)).toThrow(JobRefusal);
  });
  it("never believes a tablet whose clock runs ahead", () => {
    const id = takeIn(INTAKE, INES);
    appendEvents(id, 1, [{ ...reading("from-future"), takenAt: "2999-01-01T00:00:00.000Z" }], INES);
    expect(Date.parse(eventsAfter(id)[1]!.at)).toBeLessThanOrEqual(Date.now());
  });
  it("knows who has a job open, and forgets them when they go quiet", () => {
    const id = takeIn(INTAKE, INES);
    expect(seen(id, INES)).toEqual([]);
    expect(seen(id, OSKAR)).toMatchObject([{ name: "Ines Tarbet" }]);
    expect(jobTickets().find((t) => t.id === id)!.on).toHaveLength(2);
    expect(peopleOn(Date.now() + 60_000).get(id)).toBeUndefined();
  });
});

describe("a whole job in the simulated bay", () => {
  it("is settled by following the advice, runs, and is refused after an unnoticed bump", async () => {
    const good = technician(INES, new Date(Date.now() - 3600_000).toISOString());
    good.open(INTAKE, "unit-good");
    await good.check("ready");
    good.follow((j) => j.next.kind === "settle");
    good.write({ kind: "settle" });
    await good.run();
    const ticket = jobTickets().find((t) => t.id === good.jobId)!;
    expect(ticket.lacks).toEqual({ stage: "prove", words: "3 of 3 still to check" });

    const bumped = technician(INES, new Date(Date.now() - 3600_000).toISOString());
    bumped.open(INTAKE, "unit-good");
    await bumped.check("ready");
    bumped.follow((j) => j.next.kind === "settle");
    bumped.write({ kind: "settle" });
    bumped.write({ kind: "bump" });
    await bumped.run();
    expect(jobTickets().find((t) => t.id === bumped.jobId)).toMatchObject({ state: "refused" });
  });
  it("works a ticket out once for each state of the log", () => {
    const id = takeIn(INTAKE, INES);
    const keys = () => db().select().from(kept).where(eq(kept.jobId, id)).get();
    const first = jobTickets().find((t) => t.id === id)!;
    // Whatever is kept for this head is what is shown: nothing is worked out again.
    db().update(kept).set({ ticket: { ...keys()!.ticket, customer: "Kept" } }).where(eq(kept.jobId, id)).run(); // prettier-ignore
    expect(jobTickets().find((t) => t.id === id)).toEqual({ ...first, customer: "Kept" });
    appendEvents(id, 1, [reading("grows")], INES);
    expect(jobTickets().find((t) => t.id === id)).toMatchObject({ customer: "Elin Marsh", lacks: { stage: "ready" } });
    expect(keys()!.key).toMatch(/^2\//);
  });
  it("refuses a command that does not fit the run, and writes nothing for it", async () => {
    const id = takeIn(INTAKE, INES);
    await expect(commandRun(id, 0, { type: "start", step: "learn" }, INES)).rejects.toThrow(/not connected/);
    await expect(commandRun("no-such-job", 0, { type: "connect" }, INES)).rejects.toThrow(JobRefusal);
    expect(eventsAfter(id)).toHaveLength(1);
  });
});

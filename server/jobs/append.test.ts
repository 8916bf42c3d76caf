import { beforeAll, describe, expect, it, vi } from "vitest";
import { typedFigures, type TabletEvent } from "@/core/job";
import { technician } from "@/demo/technician";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { INTAKE, ON_THE_SPOT } from "@/tests/fixtures";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { listJobs, changedJobs } from "./list";
import { writeLines, type LineOutcome, type SentLine } from "./append";
import { eventsAfter } from "./log";
import { peopleOn, seen } from "./presence";
import { JobRefusal } from "./refusal";
import { commandRun } from "./run";
import { findJob } from "./store";
import { takeIn } from "./take-in";
import { ticketState, workTicket } from "./tickets";

beforeAll(() => openTestShop());

const LEAD: Person = { ...OSKAR, role: "lead" };
const PHONE = (job: string): Person => ({ ...INES, onlyJob: job });
const line = (id: string, body: TabletEvent, takenAt = new Date().toISOString()): SentLine => ({
  id,
  takenAt,
  body,
});
const reading = (id: string, slotId = "tape-fl-l", typed = "2876", more: object = {}): SentLine =>
  line(id, {
    kind: "reading",
    slotId,
    typed,
    shown: Number(typed),
    sigma: 1.7,
    instrumentId: "T-3",
    ...more,
  });
const touched = (id: string): SentLine => line(id, { kind: "touch", touch: "hung" });
const jobCount = (): number =>
  db().$client.prepare("SELECT count(*) FROM jobs").pluck().get() as number;

/** Sends lines at the head of the log and tells what became of each. */
function send(job: string, lines: SentLine[], who: Person = INES, sentAt?: string): string[] {
  const result = writeLines(job, eventsAfter(job).length, lines, who, { sentAt });
  if (!result.ok) throw new Error("conflict");
  return result.outcomes.map((o: LineOutcome) =>
    o.outcome === "refused" ? `refused: ${o.why}` : o.outcome,
  );
}

describe("a car no book has", () => {
  const intake = (typed: object) => ({
    ...INTAKE,
    vehicleId: "on-the-spot",
    sheetId: "on-the-spot",
    sheetVersion: 1,
    onTheSpot: { ...ON_THE_SPOT, ...typed },
  });
  it("stands on what was typed, under its writer's name; of a board the shop does not have nothing is opened", () => {
    const before = jobCount();
    expect(() => takeIn(intake({ boardCode: "HQ-99" }), INES)).toThrow(
      "Board: HQ-99 is no board of this shop’s kit. Choose one of it.",
    );
    expect(() => takeIn(intake({ wheelbaseMm: 270 }), INES)).toThrow(/wheelbaseMm|1500/);
    // Without its figures the name alone opens nothing.
    expect(() => takeIn({ ...intake({}), onTheSpot: undefined }, INES)).toThrow(/Vehicle: choose/);
    expect(jobCount()).toBe(before);
    const { ground } = findJob(takeIn(intake({}), INES))!;
    expect(ground.vehicle.provisional).toEqual({
      enteredBy: INES.name,
      wheelbaseSigmaMm: 4,
      trackSigmaMm: 4,
    });
    const { sheet } = ground.calibrations[0]!;
    expect(sheet.status).toBe("provisional");
    expect(sheet.source).toMatchObject({ enteredBy: INES.name });
    expect(sheet.source.checkedBy).toBeUndefined();
  });
  it("is compared by somebody else than who typed it, and only where something was typed", () => {
    const job = takeIn(intake({}), INES);
    expect(send(job, [line("own", { kind: "second-look" })])[0]).toMatch(
      /refused: Second look: .* typed these figures/,
    );
    expect(send(job, [line("other", { kind: "second-look" })], OSKAR)).toEqual(["written"]);
    const events = eventsAfter(job);
    expect(typedFigures(findJob(job)!.ground, events)!.compared!.by.name).toBe(OSKAR.name);
    // Taken back, nobody has compared them.
    const undo = { kind: "strike", target: "other", reason: "wrong page" } as const;
    expect(send(job, [line("undo", undo)], OSKAR)).toEqual(["written"]);
    expect(typedFigures(findJob(job)!.ground, eventsAfter(job))!.compared).toBeNull();
    const plain = takeIn(INTAKE, INES);
    expect(send(plain, [line("plain", { kind: "second-look" })], OSKAR)[0]).toMatch(
      /refused: Second look: the figures of this job come from the shop's books/,
    );
  });
});

describe("taking in", () => {
  it.each([
    [{ vin: "0NVLS2DA7R100417" }, /VIN: A VIN has 17 characters/],
    [{ vehicleId: "no-such" }, /Vehicle: choose one/],
    [{ sheetVersion: 1 }, /Sheet: this version is no longer the newest/],
    [{ sheetId: "tarn-forward", sheetVersion: 3 }, /Sheet: .* is not for the Lisse/],
    [{ standId: "S-9" }, /Stand: choose one/],
    [
      { vehicleId: "brannoch-tarn", sheetId: "tarn-forward", sheetVersion: 3 },
      /Rear toe: the sheet squares the board to the thrust line/,
    ],
  ])("refuses %j and names the field", (wrong, message) => {
    const before = jobCount();
    expect(() => takeIn({ ...INTAKE, ...wrong }, INES)).toThrow(message);
    expect(jobCount()).toBe(before);
  });
  it("keeps a doubtful VIN with its reason, freezes the documents in force, and numbers jobs one after another", () => {
    const first = findJob(
      takeIn({ ...INTAKE, vin: "0NVLS2DA7R100417", vinReason: "plate is worn" }, INES),
    )!;
    const second = findJob(takeIn(INTAKE, OSKAR))!;
    expect(first.ground.intake.vinReason).toBe("plate is worn");
    expect(first.ground.calibrations[0]!.sheet).toMatchObject({ id: "lisse-forward", version: 2 });
    expect(second.number).toBe(first.number + 1);
  });
});

describe("the log of a job", () => {
  it("takes a line once, however often it is sent; another one under its name is refused and says so", () => {
    const id = takeIn(INTAKE, INES);
    const batch = [reading("reading-a"), reading("reading-b", "tape-fr-r")];
    expect(send(id, batch)).toEqual(["written", "written"]);
    expect(send(id, [...batch, reading("reading-b", "tape-fr-r")])).toEqual([
      "known",
      "known",
      "known",
    ]);
    expect(send(id, [reading("reading-a", "tape-fl-l", "2901")])[0]).toMatch(
      /^refused: Another line stands in the log under/,
    );
    // Names count per job: another job knows nothing of them.
    expect(send(takeIn(INTAKE, INES), [reading("reading-a")])).toEqual(["written"]);
    expect(eventsAfter(id).map((e) => e.seq)).toEqual([1, 2, 3]);
  });
  it("takes what follows a batch whose answer was lost: a tablet's own writing is never its conflict", () => {
    const id = takeIn(INTAKE, INES);
    expect(writeLines(id, 1, [reading("own-line-a")], INES)).toMatchObject({ ok: true });
    // The answer never came, and more was written meanwhile: both are sent, in knowledge of what
    // was seen then.
    expect(writeLines(id, 1, [reading("own-line-a"), reading("own-line-b")], INES)).toMatchObject({
      ok: true,
    });
    expect(
      eventsAfter(id)
        .map((e) => e.id)
        .slice(1),
    ).toEqual(["own-line-a", "own-line-b"]);
    // A colleague's reading stands beside one's own; a touch of theirs beside one's own does not.
    writeLines(id, 3, [reading("other-one")], OSKAR);
    expect(writeLines(id, 1, [reading("own-line-b"), reading("own-line-c")], INES)).toMatchObject({
      ok: true,
    });
    // Two devices of one person, neither of which has seen the other's touch.
    for (const own of ["own-touch-a", "own-touch-b"])
      expect(writeLines(id, 1, [touched(own)], INES)).toMatchObject({ ok: true });
    writeLines(id, 7, [touched("other-two")], OSKAR);
    expect(writeLines(id, 1, [reading("own-line-c"), touched("own-line-d")], INES)).toMatchObject({
      ok: false,
      missing: [
        { id: "own-line-a" },
        { id: "own-line-b" },
        { id: "other-one" },
        { id: "own-touch-a" },
        { id: "own-touch-b" },
        { id: "other-two" },
      ],
    });
  });
  it("answers a writer who does not know what happened to the same stand with what is missing, and writes nothing", () => {
    const id = takeIn(INTAKE, INES);
    writeLines(id, 1, [touched("first-one")], INES);
    const late = writeLines(id, 1, [touched("late-one")], OSKAR);
    expect(late).toMatchObject({
      ok: false,
      missing: [{ id: "first-one", by: { initials: "IT" } }],
    });
    expect(eventsAfter(id)).toHaveLength(2);
    expect(writeLines(id, 2, [touched("late-one")], OSKAR)).toMatchObject({ ok: true });
  });
  it("refuses a line alone; behind a refused move only what is read at that stand is held, behind a moved car everything", () => {
    const id = takeIn(INTAKE, INES);
    const wrong = reading("wrong-one", "no-such-slot");
    expect(send(id, [reading("good-one"), wrong, reading("good-two", "tape-fr-r")])).toEqual([
      "written",
      expect.stringMatching(/^refused: slot: T-3 reads /),
      "written",
    ]);
    const after = {
      pose: { xMm: 90_000, yMm: 0, headingRad: 0 },
      heightMm: 1245,
      pitchRad: 0,
      rollRad: 0,
    };
    const farMove = line("far-move", {
      kind: "move",
      move: { kind: "roll", awayMm: 9000, leftMm: 0, turnRad: 0, after },
      rest: [],
    });
    const pause = line("pause-one", { kind: "pause", reason: "waiting for a part" });
    expect(send(id, [farMove, reading("held-one"), pause])).toEqual([
      expect.stringMatching(/^refused: move: nobody moves a stand/),
      "held",
      "written",
    ]);
    const future = new Date(Date.now() + 3_600_000).toISOString();
    const moved = line("moved-car", { kind: "touch", touch: "moved-car" }, future);
    expect(send(id, [moved, line("resume-one", { kind: "resume" })])).toEqual([
      expect.stringMatching(/still to come/),
      "held",
    ]);
    expect(
      eventsAfter(id)
        .map((e) => e.id)
        .slice(1),
    ).toEqual(["good-one", "good-two", "pause-one"]);
  });
  it("reads every figure itself, from the typed text and the instrument, whatever the tablet says it showed", () => {
    const id = takeIn(INTAKE, INES);
    expect(
      send(id, [reading("a-believer", "tape-fl-l", "2871", { shown: 2640, sigma: 1e-6 })]),
    ).toEqual(["written"]);
    const [taken] = eventsAfter(id, 1);
    expect(taken!.body).toMatchObject({ shown: 2871, sigma: expect.closeTo(1.718, 3) as number });
    expect(send(id, [reading("inch-line", "tape-fl-l", "113 1/32", { lengths: "in" })])).toEqual([
      "written",
    ]);
    expect(eventsAfter(id).at(-1)!.body).toMatchObject({
      shown: expect.closeTo(2870.99, 2) as number,
    });
    expect(send(id, [reading("meant-one", "tape-fl-l", "2.87", { meant: "2.87 metres" })])).toEqual(
      ["written"],
    );
    expect(eventsAfter(id).at(-1)!.body).toMatchObject({ typed: "2.87", shown: 2870 });
  });
  it.each<[string, TabletEvent, RegExp]>([
    [
      "an instrument that is not there",
      {
        kind: "reading",
        slotId: "tape-fl-l",
        typed: "2871",
        shown: 1,
        sigma: 1,
        instrumentId: "X-9",
      },
      /instrument: X-9 is not in this job/,
    ],
    [
      "another kind's instrument",
      {
        kind: "reading",
        slotId: "tape-fl-l",
        typed: "2871",
        shown: 1,
        sigma: 1,
        instrumentId: "G-1",
      },
      /slot: G-1 reads panel/,
    ],
    [
      "a figure that cannot be true",
      {
        kind: "reading",
        slotId: "tape-fl-l",
        typed: "2.871",
        shown: 2871,
        sigma: 1,
        instrumentId: "T-3",
      },
      /value: .* cannot be .* Meant as 2.871 metres\?/,
    ],
    [
      "a side nobody named",
      {
        kind: "reading",
        slotId: "laser-badge",
        typed: "12",
        shown: 12,
        sigma: 1,
        instrumentId: "L-1",
      },
      /value: Say which side/,
    ],
    ["a settlement without proof", { kind: "settle" }, /do not prove/],
    [
      "a line that is not there",
      { kind: "strike", target: "nothing-there", reason: "gone" },
      /not in this job/,
    ],
    ["a hand-over of nothing", { kind: "hand-over" }, /Nothing was done on this job yet/],
    [
      "an odometer of its own",
      { kind: "walk", odometerKm: 5, odometerTyped: "about five", lamps: [], settings: {} },
      /odometer: type it as it stands/,
    ],
    [
      "a value nobody typed",
      { kind: "measured", itemId: "tyres", values: { FL: 230 }, typed: {} },
      /FL: a value came without what was typed/,
    ],
    [
      "a check the sheet does not ask",
      { kind: "check", stage: "ready", itemId: "toString", outcome: "fine", reason: null },
      /item: the sheet has no "toString"/,
    ],
    [
      "fine without a figure",
      { kind: "check", stage: "ready", itemId: "tyres", outcome: "fine", reason: null },
      /Measure it first/,
    ],
    [
      "fixed without a figure",
      { kind: "check", stage: "ready", itemId: "maintainer", outcome: "fixed", reason: null },
      /Read the supply first/,
    ],
    [
      "accepted without a reason",
      { kind: "check", stage: "ready", itemId: "tyres", outcome: "accepted", reason: null },
      /reason: say why/,
    ],
    [
      "a depth in metres",
      { kind: "glass", part: "HQG-1", fitter: "", partReason: null, depths: { top: 2100 } },
      /top: 2100 mm is no seating depth/,
    ],
    [
      "a photo that never came",
      { kind: "photo", photo: "a".repeat(64), subject: "dash", takenAt: null },
      /did not arrive/,
    ],
    ["a place the sheet does not have", { kind: "position", to: "moon" }, /no such place/],
    [
      "an adjuster the stand does not have",
      {
        kind: "move",
        move: {
          kind: "slide",
          joint: 7,
          axis: "cross",
          byMm: 3,
          awayMm: 0,
          leftMm: 3,
          after: {
            pose: { xMm: 5000, yMm: 0, headingRad: 3 },
            heightMm: 1245,
            pitchRad: 0,
            rollRad: 0,
          },
        },
        rest: [],
      },
      /has no such adjuster/,
    ],
    ["a revision of an open job", { kind: "reopen", reason: "curious" }, /not handed over/],
  ])("refuses %s, naming the field and the remedy", (_, body, words) => {
    const id = takeIn(INTAKE, INES);
    const [answer] = send(id, [line("refused-line", body)], LEAD);
    expect(answer).toMatch(/^refused: /);
    expect(answer).toMatch(words);
    expect(eventsAfter(id)).toHaveLength(1);
  });
  it("knocks a simulated bay at the press of a button, and never a real one", () => {
    const knock = (job: string): string[] => send(job, [line("knock-one", { kind: "bump" })]);
    expect(knock(takeIn(INTAKE, INES))).toEqual(["written"]);
    vi.stubEnv("IRIDEL_SIMULATED", "0");
    const real = takeIn(INTAKE, INES);
    vi.unstubAllEnvs();
    expect(knock(real)).toEqual([
      "refused: Only a simulated bay is knocked at the press of a button.",
    ]);
  });
  it("a phone at the stand reads, touches and moves, and strikes only its own person's lines", () => {
    const id = takeIn(INTAKE, INES);
    send(id, [reading("hers-line")], OSKAR);
    expect(
      send(
        id,
        [reading("phones-line", "tape-fr-r"), line("touch-one", { kind: "touch", touch: "hung" })],
        PHONE(id),
      ),
    ).toEqual(["written", "written"]);
    const no = /refused: A phone at the stand/;
    for (const body of [
      { kind: "hand-over" },
      { kind: "owed-decline", line: "x", reason: "no time" },
      { kind: "consent", name: "Elin", words: "", strokes: [[[1, 2]]] },
    ] as TabletEvent[])
      expect(send(id, [line(`no-${body.kind}-line`, body)], PHONE(id))[0]).toMatch(no);
    expect(
      send(
        id,
        [line("strike-hers", { kind: "strike", target: "hers-line", reason: "read again" })],
        PHONE(id),
      )[0],
    ).toMatch(/The line is Oskar Veld’s/);
    expect(
      send(
        id,
        [line("strike-own", { kind: "strike", target: "phones-line", reason: "read again" })],
        PHONE(id),
      ),
    ).toEqual(["written"]);
    expect(send(id, [reading("viewers-line")], { ...OSKAR, role: "viewer" })[0]).toMatch(
      /may look but not write/,
    );
  });
  it("knows how far a tablet's clock is off, and refuses times that cannot be", () => {
    const id = takeIn(INTAKE, INES);
    const now = Date.now();
    const behind = new Date(now - 420_000).toISOString();
    expect(send(id, [{ ...reading("slow-clock"), takenAt: behind }], INES, behind)).toEqual([
      "written",
    ]);
    const [slow] = eventsAfter(id, 1);
    expect(slow!.clockBehindS).toBe(420);
    expect(Math.abs(Date.parse(slow!.at) - now)).toBeLessThan(3000);
    expect(Date.parse(slow!.receivedAt!)).toBeGreaterThanOrEqual(now);
    expect(send(id, [{ ...reading("old-line"), takenAt: "1971-01-01T00:00:00.000Z" }])[0]).toMatch(
      /before this job was opened/,
    );
    expect(send(id, [{ ...reading("new-line"), takenAt: "2999-01-01T00:00:00.000Z" }])[0]).toMatch(
      /still to come/,
    );
  });
  it("is sealed at the hand-over; only the lead opens it again, with a reason, for a next version", async () => {
    const id = takeIn(INTAKE, INES);
    send(id, [reading("work-line"), line("over-line", { kind: "hand-over" })]);
    const sealed = /refused: This job is handed over/;
    expect(
      send(
        id,
        [line("late-strike", { kind: "strike", target: "work-line", reason: "misread" })],
        OSKAR,
      )[0],
    ).toMatch(sealed);
    await expect(commandRun(id, 0, { type: "connect" }, INES)).rejects.toThrow(/handed over/);
    expect(
      send(id, [line("reopen-one", { kind: "reopen", reason: "tape was wrong" })], INES)[0],
    ).toMatch(/Ask the lead/);
    expect(
      send(id, [line("reopen-two", { kind: "reopen", reason: "tape was wrong" })], LEAD),
    ).toEqual(["written"]);
    expect(
      send(
        id,
        [line("late-strike", { kind: "strike", target: "work-line", reason: "misread" })],
        OSKAR,
      ),
    ).toEqual(["written"]);
  });
  it("knows who has a job open, and forgets them when they go quiet", () => {
    const id = takeIn(INTAKE, INES);
    expect(seen(id, INES)).toEqual([]);
    expect(seen(id, OSKAR)).toMatchObject([{ name: "Ines Tarbet" }]);
    expect(listJobs({}).on[id]).toHaveLength(2);
    expect(peopleOn(Date.now() + 60_000).get(id)).toBeUndefined();
  });
});

describe("the list of jobs", () => {
  it("finds by the beginnings of words, counts by state, and gives only what changed after a stamp", () => {
    const id = takeIn({ ...INTAKE, customer: "Ödün Brækkä", plate: "HQ 77 ZED" }, INES);
    workTicket(id);
    for (const find of [
      "odun brae".replace("ae", "æ"),
      "hq77",
      "77 zed",
      String(findJob(id)!.number),
    ])
      expect(
        listJobs({ find }).tickets.map((t) => t.id),
        find,
      ).toContain(id);
    for (const find of ["zed-not", '" OR 1', "brækkä*(("])
      expect(() => listJobs({ find })).not.toThrow();
    expect(listJobs({ find: "nobody of that name" })).toMatchObject({ tickets: [], counts: {} });
    expect(listJobs({ find: "hq77" }).counts).toEqual({ [ticketState(id)!]: 1 });
    expect(listJobs({ state: "handed-over" }).tickets.map((t) => t.id)).not.toContain(id);
    const { stamp } = listJobs({});
    expect(changedJobs(stamp).tickets.map((t) => t.id)).not.toContain(id);
    send(id, [reading("grows-one")]);
    workTicket(id);
    expect(changedJobs(stamp).tickets.map((t) => t.id)).toContain(id);
  });
  it("shows a ticket as it is kept and works it out anew once the log has grown, off the request", async () => {
    const id = takeIn(INTAKE, INES);
    workTicket(id);
    const keep = db().$client.prepare(
      "UPDATE job_tickets SET ticket = json_set(ticket, '$.customer', 'Kept') WHERE jobId = ?",
    );
    keep.run(id);
    const of = () => listJobs({}).tickets.find((t) => t.id === id)!.customer;
    expect(of()).toBe("Kept");
    send(id, [reading("grows-two")]);
    expect(of()).toBe("Kept");
    await expect.poll(of, { timeout: 5000 }).toBe("Elin Marsh");
  });
});

describe("a whole job in the simulated bay", () => {
  it("is settled by following the advice, runs, and is refused after an unnoticed bump", async () => {
    const good = technician(INES, new Date(Date.now() - 3600_000).toISOString());
    good.open(INTAKE, "unit-good");
    await good.check("ready");
    good.follow((j) => j.next.kind === "settle");
    good.settle();
    await good.run();
    const ticket = workTicket(good.jobId)!;
    expect(ticket.lacks).toEqual({ stage: "prove", words: "3 of 3 still to check" });

    const bumped = technician(INES, new Date(Date.now() - 3600_000).toISOString());
    bumped.open(INTAKE, "unit-good");
    await bumped.check("ready");
    bumped.follow((j) => j.next.kind === "settle");
    bumped.settle();
    bumped.write({ kind: "bump" });
    await bumped.run();
    expect(workTicket(bumped.jobId)).toMatchObject({ state: "refused" });
  });
  it("refuses a command that does not fit the run, and writes nothing for it", async () => {
    const id = takeIn(INTAKE, INES);
    await expect(commandRun(id, 0, { type: "start", step: "learn" }, INES)).rejects.toThrow(
      /not connected/,
    );
    await expect(commandRun("no-such-job", 0, { type: "connect" }, INES)).rejects.toThrow(
      JobRefusal,
    );
    expect(eventsAfter(id)).toHaveLength(1);
  });
});

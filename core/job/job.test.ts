import { describe, expect, it } from "vitest";
import { timesIn } from "@/core/units";
import type { TouchKind } from "@/core/setout";
import type { RunEvent } from "@/core/run";
import { SHEETS } from "@/demo/data/sheets";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import {
  intakeSchema,
  itemLacks,
  itemSettled,
  jobState,
  judgeTarget,
  planFor,
  sceneNow,
  settlementOf,
  slipLines,
  stageStates,
  standingAt,
  tabletEventSchema,
  ticketOf,
  type EventBody,
  type JobEvent,
} from ".";

const intake = intakeSchema.parse({ ...INTAKE, plate: "HQ 41 ELM", order: "4471" });
const ground = groundOf(intake, 0, SHEETS[0]!);
const log = (...bodies: EventBody[]): JobEvent[] => logOf(ground, ...bodies);
const FIRST = "first";
const at = (events: JobEvent[], of = ground) => planFor(of, events, FIRST);
/** What of the first target still holds. */
const standing = (events: JobEvent[]) => standingAt(ground, events, FIRST)!;
const entriesOf = (events: JobEvent[]) => sceneNow(ground, events, FIRST).entries;

const check = (
  stage: "ready" | "prove",
  itemId: string,
  reason: string | null = null,
): EventBody => ({
  kind: "check",
  stage,
  itemId,
  outcome: reason ? "accepted" : "fine",
  reason,
});
const reading = (slotId: string, shown: number): EventBody => ({
  kind: "reading",
  slotId,
  typed: String(shown),
  shown,
  sigma: 1.7,
  instrumentId: "T-3",
});
const touch = (kind: TouchKind): EventBody => ({ kind: "touch", touch: kind });
const settled: EventBody = {
  kind: "settled",
  chance: 0.995,
  alongMm: 1,
  acrossMm: -2,
  twistRad: 0.001,
  heightMm: 0.5,
  sigma: { alongMm: 1, acrossMm: 2, twistRad: 0.001, heightMm: 1 },
  readingIds: [],
};
const run = (event: RunEvent): EventBody => ({ kind: "run", event });
const connected = run({
  at: "2026-11-03T10:00:00.000Z",
  type: "connected",
  tool: { name: "Tool", serial: "1", software: "1" },
  volts: 13,
});

const stateOf = (events: JobEvent[], id: string) =>
  stageStates(events, ground).find((s) => s.id === id)!;

describe("the instrument in hand", () => {
  const tape = ground.instruments.find((i) => i.kind === "tape")!;
  const other = { ...tape, id: "T-4", name: "Steel tape 4", sigmaMm: 2 };
  const shop = { ...ground, instruments: [...ground.instruments, other] };
  const taken = (instrumentId: string): EventBody => ({ kind: "instrument", instrumentId });
  const byT4 = (slotId: string, shown: number): EventBody =>
    ({ ...reading(slotId, shown), instrumentId: "T-4" }) as EventBody;
  const tapeOf = (events: JobEvent[]) =>
    at(events, shop).instruments.find((i) => i.kind === "tape")!.id;
  it("is the first of its kind until another one is taken, and the last one taken then", () => {
    expect(tapeOf(log())).toBe("T-3");
    expect(tapeOf(log(taken("T-4")))).toBe("T-4");
    expect(tapeOf(log(taken("T-4"), taken("T-3")))).toBe("T-3");
    expect(at(log(taken("T-4")), shop).instruments).toHaveLength(shop.instruments.length);
  });
  it("has a scale of its own: two tapes are two unknowns, one is one", () => {
    const solved = (...bodies: EventBody[]) =>
      judgeTarget(shop, log(...bodies), FIRST).solution.network.nuisances!.map((n) => n.id);
    const one = [reading("tape-fl-l", 2876), reading("tape-fr-r", 2880)];
    expect(solved(...one).filter((id) => id.startsWith("scale"))).toEqual(["scale of the tape"]);
    const two = solved(one[0]!, taken("T-4"), byT4("tape-fr-r", 2880));
    expect(two.filter((id) => id.startsWith("scale"))).toEqual([
      "scale of the tape T-3",
      "scale of the tape T-4",
    ]);
  });
});

describe("stages", () => {
  it("a fresh job lacks everything after its intake and asks for no drive", () => {
    const states = stageStates(log(), ground);
    expect(states.map((s) => s.state)).toEqual([
      "settled",
      "settled",
      "open",
      "open",
      "open",
      "none",
      "open",
      "open",
    ]);
    expect(jobState(states)).toBe("in-work");
  });
  it("checks count down, a struck check is open again, an accepted one is settled", () => {
    const one = log(check("ready", "light"), check("ready", "load", "racking stays in"));
    expect(stateOf(one, "ready")).toMatchObject({
      state: "loose",
      lacks: "9 of 11 still to check",
    });
    const struck = log(check("ready", "light"), {
      kind: "strike",
      target: "e2",
      reason: "wrong car",
    });
    expect(stateOf(struck, "ready").lacks).toBe("11 of 11 still to check");
    const all = log(
      ...ground.sheet.ready.map((i) => check("ready", i.id, i.measure ? "seen by the lead" : null)),
    );
    expect(stateOf(all, "ready")).toMatchObject({ state: "settled", lacks: null });
  });
  it("what is measured is fine, or fixed, only by its last figures: tyres 3.6 % apart stay open whatever is tapped", () => {
    const item = ground.sheet.ready.find((i) => i.measure?.kind === "tyres")!;
    const tyres = (left: number): EventBody => ({
      kind: "measured",
      itemId: item.id,
      values: { FL: left, FR: 645, RL: 645, RR: 645 },
      typed: {},
    });
    const fixed: EventBody = {
      kind: "check",
      stage: "ready",
      itemId: item.id,
      outcome: "fixed",
      reason: null,
    };
    const settles = (...bodies: EventBody[]): boolean =>
      itemSettled(ground, log(...bodies), "ready", item);
    expect(settles(fixed)).toBe(false);
    expect(settles(tyres(622), fixed)).toBe(false);
    expect(itemLacks(ground, log(tyres(622)), item)).toMatch(
      /^As last read it is outside: across the front axle: 3.6 %/,
    );
    const righted: EventBody = { kind: "put-right", itemId: item.id };
    expect(itemLacks(ground, log(tyres(622), righted), item)).toMatch(/read it again/);
    expect(settles(tyres(622), righted, tyres(645), fixed)).toBe(true);
    // Good figures from before it was put right prove nothing.
    expect(settles(tyres(645), fixed, righted)).toBe(false);
    expect(settles(tyres(622), check("ready", item.id, "the customer’s own"))).toBe(true);
  });
  it.each([
    ["a reading", reading("laser-badge", 3)],
    ["a touch", touch("hung")],
    [
      "a move",
      {
        kind: "move",
        move: {
          kind: "crank",
          upMm: 3,
          turns: 0.5,
          after: { pose: { xMm: 0, yMm: 0, headingRad: 0 }, heightMm: 0, pitchRad: 0, rollRad: 0 },
        },
        rest: [],
      } as EventBody,
    ],
    ["a struck reading", { kind: "strike", target: "e2", reason: "misread" } as EventBody],
  ])("%s after the board was settled unsettles it", (_, disturbance) => {
    const before = log(reading("tape-fl-l", 2876), settled);
    expect(standing(before).settled?.id).toBe("e3");
    expect(stateOf(before, "set-out").state).toBe("settled");
    const after = log(reading("tape-fl-l", 2876), settled, disturbance);
    expect(standing(after).settled).toBeNull();
    expect(stateOf(after, "set-out")).toMatchObject({
      state: "loose",
      lacks: "Disturbed since it was settled",
    });
  });
  it("once the vehicle has learned, the set-out counts as it was when the vehicle looked", () => {
    const learn = ground.sheet.run.find((s) => s.kind === "routine")!;
    const short = groundOf(intake, 0, { ...SHEETS[0]!, run: [learn] });
    const at = "2026-11-03T10:01:00.000Z";
    const looks = run({ at, type: "routine-started", step: learn.id });
    const learns = (passed: boolean): EventBody =>
      run({
        at,
        type: "routine-result",
        step: learn.id,
        result: { passed, qualityPercent: 91, reason: passed ? null : "No board in view." },
      });
    const setOut = (...bodies: EventBody[]): string =>
      stageStates(logOf(short, ...bodies), short).find((s) => s.id === "set-out")!.state;
    const knock = touch("knocked");
    expect(setOut(settled, connected, looks, learns(true), knock)).toBe("settled");
    expect(setOut(settled, knock, connected, looks, learns(true))).toBe("open");
    expect(setOut(settled, connected, looks, learns(false), knock)).toBe("open");
  });
  it("an unnoticed bump unsettles nothing: nobody knows", () => {
    expect(standing(log(settled, { kind: "bump" })).settled).not.toBeNull();
  });
  it("a refusal of the vehicle stops the job and is what the list says", () => {
    const stopped = log(
      connected,
      run({ at: "2026-11-03T10:01:00.000Z", type: "stopped", reason: "Plug fell out" }),
    );
    expect(stateOf(stopped, "run").state).toBe("loose");
    // A sheet whose routine comes at once, so that the log is short.
    const short = groundOf(intake, 0, {
      ...ground.sheet,
      run: ground.sheet.run.filter((s) => s.kind === "routine"),
    });
    const step = short.sheet.run[0]!.id;
    const no = {
      passed: false,
      qualityPercent: 12,
      learnedYawDeg: 0,
      learnedPitchDeg: 0,
      learnedRollDeg: 0,
      reason: "The board stands too far",
    };
    const refused = log(
      connected,
      run({ at: "2026-11-03T10:02:00.000Z", type: "routine-started", step }),
      run({ at: "2026-11-03T10:03:00.000Z", type: "routine-result", step, result: no }),
    );
    const ticket = ticketOf({ id: "j", number: 1041 }, short, refused, []);
    expect(ticket).toMatchObject({
      vehicle: "Norvane Lisse",
      state: "refused",
      last: { name: "Ines Tarbet" },
    });
    expect(ticket.lacks).toEqual({ stage: "run", words: "The board stands too far" });
  });
});

describe("what happened at the stand", () => {
  it("leaves out what was struck and keeps the order of the rest", () => {
    const events = log(
      reading("tape-fl-l", 2876),
      reading("tape-fr-r", 2990),
      { kind: "strike", target: "e3", reason: "misread" },
      touch("hung"),
    );
    expect(entriesOf(events).map((e) => e.id)).toEqual(["e2", "e5"]);
  });
  it("prints no settlement while the verdict is anything but set", () => {
    expect(
      settlementOf(judgeTarget(ground, log(reading("tape-fl-l", 2876)), FIRST), {
        calibrationId: ground.calibrationId,
        targetId: FIRST,
      }),
    ).toBeNull();
  });
  it("reads rear toe in degrees and hands it on in radians", () => {
    const turned = { ...ground, intake: { ...intake, rearToeDeg: { left: 0.1, right: -0.2 } } };
    expect(at([], turned).rearToe!.rightRad).toBeCloseTo((-0.2 * Math.PI) / 180, 12);
  });
});

describe("the slip", () => {
  const lines = (events: JobEvent[]) =>
    slipLines(events, ground, judgeTarget(ground, events, FIRST), "mm", timesIn("UTC"));

  it("prints every settled fact with time and initials, a struck one with its reason", () => {
    const slip = lines(
      log(check("ready", "load", "racking stays in"), reading("laser-badge", -12), {
        kind: "strike",
        target: "e3",
        reason: "dot moved",
      }),
    );
    expect(slip.map((l) => l.label)).toEqual([
      "Vehicle",
      "VIN",
      "Done",
      "Owed",
      "Sheet",
      "Fuel above half, no people or cargo",
      "board laser past front badge",
    ]);
    expect(slip.every((l) => l.initials === "IT" && l.at.startsWith("2026-11-03T09:"))).toBe(true);
    expect(slip[5]).toMatchObject({ state: "loose", note: "racking stays in", value: "accepted" });
    expect(slip[6]).toMatchObject({
      state: "struck",
      note: "Struck by IT: dot moved",
      strikable: false,
    });
    expect(slip[6]!.value.replace(/\s/g, " ")).toBe("12 mm vehicle right");
  });
  it("marks readings taken before a touch as in doubt, and a disturbed settlement too", () => {
    const slip = lines(log(reading("tape-fl-l", 2876), settled, touch("knocked")));
    expect(slip.filter((l) => l.state === "doubt").map((l) => l.label)).toEqual([
      "front hub left → beam end left",
      "Board set",
      "Touched",
    ]);
  });
  it("never tells of a bump that nobody noticed", () => {
    expect(lines(log({ kind: "bump" }))).toHaveLength(5);
  });
});

describe("what a tablet may send", () => {
  it.each([
    [{ kind: "settled", chance: 1 }, "a settlement it judged itself"],
    [{ kind: "taken-in", intake }, "an intake"],
    [{ kind: "run", event: { type: "routine-result" } }, "a result of the vehicle"],
    [
      {
        kind: "reading",
        slotId: "tape-fl-l",
        typed: "x",
        shown: Infinity,
        sigma: 1,
        instrumentId: "T-3",
      },
      "infinity",
    ],
    [
      { kind: "reading", slotId: "tape-fl-l", typed: "x", shown: 1, sigma: 0, instrumentId: "T-3" },
      "a perfect instrument",
    ],
    [{ kind: "strike", target: "e2", reason: "  " }, "a strike without a reason"],
  ] as [unknown, string][])("is not %j: %s", (body) => {
    expect(tabletEventSchema.safeParse(body).success).toBe(false);
  });
});

describe("ways, toe and boards in the log", () => {
  it("the last way chosen holds, tapes until one is; it is on the slip", () => {
    expect(at(log()).school).toBeUndefined();
    const events = log(
      { kind: "school", school: "floor-box" },
      { kind: "school", school: "wheel-panels" },
    );
    expect(at(events).school).toBe("wheel-panels");
    expect(
      slipLines(events, ground, null, "mm", timesIn("UTC"))
        .filter((l) => l.label === "Way of setting out")
        .map((l) => l.value),
    ).toEqual(["Floor marks", "Wheel panels"]);
  });
  it("rear toe from rolling takes the place of the printout's, and can be struck again", () => {
    const rolled: EventBody = { kind: "rear-toe", leftDeg: 0.1, rightDeg: 0.3, how: "rolled" };
    expect(at(log(rolled)).rearToe!.rightRad).toBeCloseTo((0.3 * Math.PI) / 180, 12);
    expect(
      at(log(rolled, { kind: "strike", target: "e2", reason: "rolled on a stone" })).rearToe,
    ).toBeNull();
  });
  it("a car rolled under the rig has moved, struck or not; a printout moves nothing", () => {
    const toe = (how: "rolled" | "printout"): EventBody => ({
      kind: "rear-toe",
      leftDeg: 0.1,
      rightDeg: 0.1,
      how,
    });
    const kinds = (events: JobEvent[]): string[] =>
      entriesOf(events).map((e) => (e.kind === "touch" ? e.touch : e.kind));
    expect(kinds(log(reading("tape-fl-l", 2876), toe("rolled")))).toEqual(["reading", "moved-car"]);
    expect(kinds(log(reading("tape-fl-l", 2876), toe("printout")))).toEqual(["reading"]);
    const struck = log(reading("tape-fl-l", 2876), toe("rolled"), {
      kind: "strike",
      target: "e3",
      reason: "on a stone",
    });
    expect(kinds(struck)).toEqual(["reading", "moved-car"]);
    const { solution } = judgeTarget(ground, struck, FIRST);
    expect(solution.readings.map((r) => r.state)).toEqual(["doubt"]);
  });
  it("a board's check holds until another board is hung", () => {
    const checked: EventBody = { kind: "board", code: "HQ-14", reason: null };
    expect(standing(log(checked)).board?.body.code).toBe("HQ-14");
    expect(standing(log(checked, { kind: "touch", touch: "cranked" })).board).not.toBeNull();
    expect(standing(log(checked, { kind: "touch", touch: "hung" })).board).toBeNull();
    expect(standing(log(checked, { kind: "touch", touch: "hung" }, checked)).board).not.toBeNull();
  });
});

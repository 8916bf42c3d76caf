import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { boardOf, carryOut, type StandBody } from "@/devices/bench/stand-sim";
import { act, measure, openBay, trueReading } from "@/devices/bench/world";
import { SHEETS } from "@/demo/data/sheets";
import { VEHICLES } from "@/demo/data/vehicles";
import { targetOf, targetsOf } from "@/core/sheet";
import { planOf } from "@/tests/fixtures";
import { degToRad } from "@/core/units";
import {
  boosterFor,
  nextAct,
  outOfReach,
  parseShown,
  readCaught,
  slotsFor,
  slotValue,
  solveSetOut,
  typedFigure,
  withBooster,
  type SetOutEntry,
  type SetOutPlan,
} from ".";
import { planMoves } from "./moves";
import { setBoard } from "@/bench/hands";
import { floorStep, wantedTilt } from "./plan";

const plain = (text: string): string => text.replace(/\s/gu, " ");
const tight = { ahead: { value: 0, sigma: 1e-4 }, left: { value: 0, sigma: 1e-4 } };

describe("square to the vehicle's plane", () => {
  it("asks for the lean and level of the plane's own normal, whatever way the board is turned", () => {
    const plan = planOf(1, 1);
    const slope = fc.double({ min: -0.02, max: 0.02, noNaN: true });
    fc.assert(
      fc.property(
        slope,
        slope,
        fc.double({ min: -40, max: 40, noNaN: true }),
        (ahead, left, twistDeg) => {
          const target = { ...plan.target, placement: { ...plan.target.placement, twistDeg } };
          const floorSlopeRad = {
            ahead: { value: ahead, sigma: 0 },
            left: { value: left, sigma: 0 },
          };
          const { pitch, roll } = wantedTilt({ target, floorSlopeRad });
          // The normal and the board's own axes as vectors: it faces the car, so "away" is against
          // its heading.
          const heading = Math.PI + degToRad(twistDeg);
          const n = [-ahead, -left, 1];
          const size = Math.hypot(...n);
          const away = [-Math.cos(heading), -Math.sin(heading)];
          const leftHand = [Math.sin(heading), -Math.cos(heading)];
          // The top leans where the normal leans; the left end is high where the floor along it
          // rises.
          expect(
            Math.abs(pitch.value - Math.asin((n[0]! * away[0]! + n[1]! * away[1]!) / size)),
          ).toBeLessThan(1e-5);
          expect(
            Math.abs(roll.value - Math.atan(ahead * leftHand[0]! + left * leftHand[1]!)),
          ).toBeLessThan(1e-5);
        },
      ),
    );
    const { upright: _, ...plumb } = plan.target;
    expect(
      wantedTilt({
        target: plumb,
        floorSlopeRad: { ahead: { value: 0.01, sigma: 0 }, left: { value: 0.01, sigma: 0 } },
      }),
    ).toEqual({ pitch: { value: 0, sigma: 0 }, roll: { value: 0, sigma: 0 } });
  });

  it.each([0, 1, 2])(
    "the feet of stand %i bring it there, the centre of the board where it belongs",
    (n) => {
      const plan = planOf(1, n);
      const tilt = fc.double({ min: -0.012, max: 0.012, noNaN: true });
      fc.assert(
        fc.property(tilt, tilt, tilt, tilt, (a, b, pitchRad, rollRad) => {
          const body: StandBody = {
            base: { xMm: 6800, yMm: 20, headingRad: Math.PI - 0.01 },
            feetMm: plan.stand.feet.map((f) => a * f.xMm + b * f.yMm),
            joints: plan.stand.joints.map(() => 0),
            mastMm: 1400,
          };
          const target = {
            pose: { xMm: 6750, yMm: 0, headingRad: Math.PI },
            heightMm: 1390,
            pitchRad,
            rollRad,
          };
          const moves = planMoves(
            plan.stand,
            { joints: body.joints },
            boardOf(plan.stand, body),
            target,
          );
          const board = boardOf(
            plan.stand,
            moves.reduce((x, m) => carryOut(plan.stand, x, m), body),
          );
          expect(Math.abs(board.pitchRad - pitchRad)).toBeLessThan(degToRad(0.01));
          expect(Math.abs(board.rollRad - rollRad)).toBeLessThan(degToRad(0.01));
          expect(Math.hypot(board.pose.xMm - 6750, board.pose.yMm)).toBeLessThan(0.5);
          // Slides run along the tilted base: 60 mm at a tilt of 0.017.
          expect(Math.abs(board.heightMm - 1390)).toBeLessThan(1.1);
        }),
        { numRuns: 300 },
      );
    },
  );

  it("is not called set while nobody knows how the plane lies, and says what to measure", () => {
    const { floorSlopeRad: _, ...unknown } = planOf(1, 1);
    const { next } = follow("plane", unknown);
    expect(next).toMatchObject({
      kind: "stuck",
      message: expect.stringMatching(/measure the floor under Ready/),
    });
    expect(follow("plane", { ...unknown, floorSlopeRad: tight }).next.kind).toBe("settle");
    expect(slotsFor(unknown).find((s) => s.id === "tilt-pitch")!.hint).toMatch(/measure the floor/);
  });
});

/** Follows the advice in a simulated bay. */
function follow(seed: string, plan: SetOutPlan) {
  let world = openBay(seed, plan);
  const entries: SetOutEntry[] = [];
  const moves: string[] = [];
  for (let i = 0; i < 60; i++) {
    const { next, solution, verdict } = nextAct(solveSetOut(plan, entries));
    if (next.kind === "settle" || next.kind === "stuck" || next.kind === "finish")
      return { next, solution, verdict, moves, world };
    if (next.kind === "move") {
      moves.push(next.move.kind);
      world = act(world, { id: `m${i}`, kind: "move", move: next.move });
      entries.push({ kind: "move", id: `m${i}`, move: next.move, rest: next.rest });
    } else {
      if (next.again)
        entries.splice(
          entries.findIndex((e) => e.id === next.again),
          1,
        );
      const { slot, sigma } = next.candidate;
      entries.push({
        kind: "reading",
        id: `r${i}`,
        slotId: slot.id,
        shown: measure(world, slot.id, i),
        sigma,
      });
    }
  }
  throw new Error("never done");
}

describe("a booster", () => {
  const plan = planOf(1, 2);
  it("is asked for first where the crank does not reach, and the scale is right afterwards", () => {
    const { next, moves, world, solution } = follow("high", plan);
    expect(moves[0]).toBe("booster");
    expect(moves.filter((m) => m === "booster")).toHaveLength(1);
    expect(next.kind).toBe("settle");
    expect(solution.plan.stand.fitted?.id).toBe("B-3");
    // 120 mm of the stand's own and 250 mm of the booster.
    expect(
      boardOf(plan.stand, world.stand).heightMm - trueReading(world, "height-scale"),
    ).toBeCloseTo(370, 6);
    const scale = solution.slots.find((s) => s.id === "height-scale")!;
    expect(scale.toModel(1110)).toBe(1480);
  });
  it("is left where it serves, taken off where it is too high, and missed where nothing reaches", () => {
    const high = withBooster(plan.stand, "B-3");
    expect(boosterFor(high, 1300)?.id).toBe("B-3");
    expect(boosterFor(high, 700)).toBeNull();
    expect(boosterFor(plan.stand, 1700)).toBeUndefined();
    expect(plain(outOfReach(plan.stand, 1700))).toMatch(
      /holds a board from 600 to 1 650 mm; the sheet wants 1 700 mm/,
    );
    expect(withBooster(high, null)).toEqual(plan.stand);
    const beyond = {
      ...plan,
      target: { ...plan.target, placement: { ...plan.target.placement, heightMm: 1700 } },
    };
    expect(nextAct(solveSetOut(beyond, [])).next).toMatchObject({ kind: "stuck" });
  });
});

describe("a bubble", () => {
  const slot = slotsFor(planOf(1, 1)).find((s) => s.id === "bubble-roll")!;
  it("is typed and shown in divisions, and counts as an angle", () => {
    const read = parseShown("1.5", slot, "mm");
    expect(read.ok && read.value).toBeCloseTo(degToRad(0.375), 12);
    expect(plain(slotValue(slot, degToRad(-0.375)))).toBe("1.5 div toward vehicle right");
  });
  it("a side of the vehicle is written with its letter, to and fro with a sign", () => {
    const lean = slotsFor(planOf(1, 1)).find((s) => s.id === "bubble-pitch")!;
    expect(["1.5", "12"].map((t) => typedFigure(slot, t, -1))).toEqual(["1.5 R", "12 R"]);
    expect(([1, -1, 0] as const).map((side) => typedFigure(lean, "1.5", side))).toEqual([
      "+1.5",
      "−1.5",
      "1.5",
    ]);
  });
  it.each([
    ["7", /5 divisions to each side/],
    ["abc", /not a number of divisions/],
    ["12 mm", /not a number of divisions/],
  ])("refuses %s", (text, message) => {
    const read = parseShown(text, slot, "mm");
    expect(read.ok ? "" : read.problem).toMatch(message);
  });
  it("and an inclinometer on the same board agree", () => {
    const plan = planOf(1, 1);
    const world = openBay("bubble", plan);
    const entries = ["bubble-roll", "tilt-roll", "bubble-pitch", "tilt-pitch"].map(
      (slotId, i): SetOutEntry => ({
        kind: "reading",
        id: slotId,
        slotId,
        shown: measure(world, slotId, i),
        sigma: degToRad(0.06),
      }),
    );
    const s = solveSetOut(plan, entries);
    const board = boardOf(plan.stand, world.stand);
    expect(Math.abs(s.scalars.roll.value - board.rollRad)).toBeLessThan(
      3 * Math.sqrt(s.scalars.roll.variance),
    );
    expect(Math.abs(s.scalars.pitch.value - board.pitchRad)).toBeLessThan(
      3 * Math.sqrt(s.scalars.pitch.variance),
    );
    expect(s.scalars.roll.suspect).toBeNull();
  });
});

it("an adjuster's play is told to the hand only where a move ends against it", () => {
  const plan = planOf(0, 0);
  const moves = (yMm: number) =>
    planMoves(
      plan.stand,
      { joints: [0, 0, 0] },
      { pose: { xMm: 5600, yMm, headingRad: Math.PI }, heightMm: 1245, pitchRad: 0, rollRad: 0 },
      { pose: { xMm: 5600, yMm: 0, headingRad: Math.PI }, heightMm: 1245 },
    );
  const slides = [moves(20), moves(-20)].map((m) =>
    m.find((x) => x.kind === "slide" && x.axis === "cross")!,
  );
  expect(slides.map((m) => "playMm" in m).sort()).toEqual([false, true]);
});

describe("what a reading may honestly be", () => {
  const everyPlace = SHEETS.flatMap((sheet) =>
    targetsOf(sheet).map((t) => [sheet.id, t.id] as const),
  );
  it.each(everyPlace)(
    "of %s at %s: no true reading of a stand just rolled in is called impossible",
    (id, place) => {
      const sheet = SHEETS.find((s) => s.id === id)!;
      const vehicle = VEHICLES.find((v) => sheet.appliesTo.vehicles.includes(v.id))!;
      const plan = { ...planOf(0, 1), vehicle, target: targetOf(sheet, place) };
      for (let i = 0; i < 40; i++) {
        const world = openBay(`honest-${i}`, plan);
        for (const slot of slotsFor(plan)) {
          // A tilted stand is levelled roughly before a bubble says anything.
          if (slot.step?.rad) continue;
          const shown = trueReading(world, slot.id);
          const { min, max } = slot.quantity;
          expect(shown >= min && shown <= max, `${slot.id}: ${shown} in ${min} to ${max}`).toBe(
            true,
          );
        }
      }
    },
  );
});

describe("a floor nobody measured", () => {
  const { floorStepMm: _, ...unknown } = planOf(0, 0);
  it("never lets a board count as set, and says what to measure once only that is missing", () => {
    const measured = setBoard(planOf(0, 0), "floor")!;
    expect(nextAct(solveSetOut(planOf(0, 0), measured.entries)).next.kind).toBe("settle");
    const judged = nextAct(solveSetOut(unknown, measured.entries));
    expect(judged.verdict).toMatchObject({ kind: "read", lacksFloor: true });
    expect(judged.next.kind === "stuck" && judged.next.message).toMatch(
      /measure the floor under Ready/,
    );
  });
  it("or that is known too badly, asks for the floor and not for one more reading", () => {
    const old = { ...planOf(0, 0), floorStepMm: { value: 0, sigma: 3 } };
    const end = follow("old floor", old);
    expect(end.next.kind === "stuck" && end.next.message).toMatch(
      /known to ± 3.0 mm only: read the floor anew under Ready/,
    );
  });
  it("is uncertain by half a degree over the way from the wheels to the board", () => {
    const far = unknown.target.placement.alongMm * Math.tan(Math.PI / 360);
    expect(floorStep(unknown).sigma).toBeCloseTo(far, 1);
    expect(floorStep(planOf(0, 0)).sigma).toBe(0.8);
  });
});

describe("a rule at both ends of the beam", () => {
  const bare = planOf(0, 1);
  const plan: SetOutPlan = { ...bare, floorSlopeRad: tight };
  const slot = slotsFor(plan).find((s) => s.id === "ends-roll")!;
  const apart = 2 * plan.stand.beamHalfMm;

  it("takes both heights, vehicle left first, or how much higher one end is", () => {
    const caught = (text: string, lengths: "mm" | "in" = "mm") =>
      readCaught(text, slot, 0, lengths);
    expect(caught("1203 1200")).toEqual({ kind: "value", shown: 3 / apart });
    expect(caught("12031209")).toEqual({ kind: "value", shown: -6 / apart });
    expect(caught("3 R")).toEqual({ kind: "value", shown: -3 / apart });
    expect(caught("50.1 50", "in")).toMatchObject({ kind: "value" });
    expect(caught("3")).toMatchObject({ kind: "problem" });
    expect(caught("1203")).toMatchObject({ kind: "problem" });
    expect(plain(slotValue(slot, -3 / apart))).toBe("3 mm vehicle-right end high");
  });

  it("says how the beam lies, and however often it is read no better than the floor is known", () => {
    const rad = degToRad(0.2);
    const floor = {
      ahead: { value: 0, sigma: 1e-4 },
      left: { value: 0.004, sigma: degToRad(0.1) },
    };
    const sloping: SetOutPlan = { ...bare, floorSlopeRad: floor };
    const own = slotsFor(sloping).find((s) => s.id === "ends-roll")!;
    const tapes = ["tape-fl-l", "tape-fr-r", "tape-fl-r", "tape-fr-l", "laser-badge"];
    const bay = openBay("ends", sloping);
    const entry = (slotId: string, id: string, shown: number, sigma: number): SetOutEntry => ({
      kind: "reading",
      id,
      slotId,
      shown,
      sigma,
    });
    const solved = (times: number) =>
      solveSetOut(sloping, [
        ...tapes.map((id) => entry(id, id, trueReading(bay, id), 1.5)),
        ...Array.from({ length: times }, (_, n) =>
          entry("ends-roll", `e${n}`, own.toShown(rad), degToRad(0.05)),
        ),
      ]).scalars.roll;
    // Weighed against what is known without it: the floor's own share does not shrink with repeats.
    const [before, after] = [solved(0), solved(3)];
    const own3 = own.against!.sigma ** 2 + degToRad(0.05) ** 2 / 3;
    const weighed = before.value / before.variance + rad / own3;
    expect(after.variance).toBeCloseTo(1 / (1 / before.variance + 1 / own3), 9);
    expect(after.value).toBeCloseTo(weighed * after.variance, 6);
    const floorOnly = 1 / (1 / before.variance + 1 / own.against!.sigma ** 2);
    expect(solved(40).variance).toBeGreaterThan(floorOnly);
    expect(solved(40).variance).toBeLessThan(after.variance);
  });
});

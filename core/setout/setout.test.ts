import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import { measure, openBay, trueReading, type BenchWorld } from "@/devices/bench/world";
import { boardOf, carryOut, type StandBody } from "@/devices/bench/stand-sim";
import { trueError } from "@/tests/coverage";
import { planOf } from "@/tests/fixtures";
import { independentSolution } from "@/tests/independent-solver";
import { byAdvice, followAdvice, readUntilSure, setBoard } from "@/bench/hands";
import { degToRad } from "@/core/units";
import {
  aim,
  datumFrame,
  datumLine,
  nextAct,
  planMoves,
  predictedReadings,
  solveSetOut,
  type SetOutEntry,
  type SetOutPlan,
} from ".";
import { targetPose } from "./plan";

/** Reads the listed slots off the world. */
const readAll = (world: BenchWorld, slotIds: string[], from = 0): SetOutEntry[] =>
  slotIds.map((slotId, i) => ({
    kind: "reading",
    id: `r${from + i}`,
    slotId,
    shown: measure(world, slotId, from + i),
    sigma: slotId.startsWith("tape") ? 1.7 : slotId.startsWith("tilt") ? degToRad(0.05) : 1.5,
  }));

const LEVEL = ["tilt-pitch", "tilt-roll"];
const FIVE = ["tape-fl-l", "tape-fr-r", "tape-fl-r", "tape-fr-l", "laser-badge"];

describe("moves", () => {
  it.each([0, 1, 2])(
    "of stand %i land within 0.5 mm and 0.01 degrees from 1,000 random poses, and read as predicted",
    (n) => {
      const plan = planOf(1, n); // this sheet tolerances pitch and roll too
      const stand = plan.stand;
      let worstReading = 0;
      fc.assert(
        fc.property(fc.integer({ min: 1, max: 2 ** 31 }), (seed) => {
          const random = randomFrom(seed);
          const within = (limit: number): number => (2 * random() - 1) * limit;
          const body: StandBody = {
            base: { xMm: 6700 + within(300), yMm: within(200), headingRad: Math.PI + within(0.08) },
            // Three-foot tilts; a fourth foot follows the plane of the others, as it must to touch
            // the floor.
            feetMm: planarFeet(plan, within(0.015), within(0.015)),
            joints: stand.joints.map((j) => within(j.kind === "yaw" ? j.limitRad : j.limitMm)),
            mastMm: 1400 + within(150),
          };
          const points = openBay("moves", plan).points;
          const target = {
            pose: targetPose(plan.target, datumLine(datumFrame(plan), points)),
            heightMm: 1480,
          };
          const moves = planMoves(stand, { joints: body.joints }, boardOf(stand, body), target);
          const moved = moves.reduce((b, move) => carryOut(stand, b, move), body);
          const board = boardOf(stand, moved);
          expect(
            Math.hypot(board.pose.xMm - target.pose.xMm, board.pose.yMm - target.pose.yMm),
          ).toBeLessThan(0.5);
          expect(Math.abs(board.heightMm - target.heightMm)).toBeLessThan(0.5);
          const turn = Math.abs(
            ((board.pose.headingRad - target.pose.headingRad + 3 * Math.PI) % (2 * Math.PI)) -
              Math.PI,
          );
          for (const angle of [turn, board.pitchRad, board.rollRad])
            expect(Math.abs(angle)).toBeLessThan(degToRad(0.01));
          stand.joints.forEach((j, i) =>
            expect(Math.abs(moved.joints[i]!)).toBeLessThanOrEqual(
              (j.kind === "yaw" ? j.limitRad : j.limitMm) + 1e-9,
            ),
          );

          // What the technician was told to see is what the instruments then show.
          const world: BenchWorld = {
            seed: "moves",
            plan,
            points,
            stand: moved,
            railMm: 0,
            mat: null,
            tapeScale: 0,
            toe: plan.rearToe ?? { leftRad: degToRad(0.1), rightRad: degToRad(0.1) },
            floor: { aheadRad: 0, leftRad: 0, twistMm: 0, stepMm: 0 },
            cameraRad: { yaw: 0, pitch: 0, roll: 0 },
          };
          const solution = solveSetOut(plan, []);
          const exact = {
            ...solution,
            adjustment: {
              ...solution.adjustment!,
              points: points.map((p) => ({ ...p, covariance: [] })),
            },
          };
          const predicted = predictedReadings(exact, moves.at(-1)?.after ?? boardOf(stand, body));
          for (const slot of solution.slots)
            if (slot.quantity.dimension === "length")
              worstReading = Math.max(
                worstReading,
                Math.abs(predicted.get(slot.id)! - trueReading(world, slot.id)),
              );
        }),
        { numRuns: 1000 },
      );
      expect(worstReading).toBeLessThan(0.5);
    },
  );

  it("never undo an earlier one: what a move sets stays set", () => {
    const plan = planOf(0, 0);
    const open = openBay("order", plan);
    const world = { ...open, stand: { ...open.stand, feetMm: [0, 0, 0], joints: [0, 0, 0] } };
    const target = solveSetOut(plan, []).target;
    const moves = planMoves(
      plan.stand,
      { joints: [0, 0, 0] },
      boardOf(plan.stand, world.stand),
      target,
    );
    expect(moves.map((m) => m.kind)).toEqual(["yaw", "slide", "slide", "crank"]);
    // Carried out one by one in the simulated stand: what a move has set is still set after every
    // later one.
    const [c, sn] = [Math.cos(target.pose.headingRad), Math.sin(target.pose.headingRad)];
    let body = world.stand;
    const set: ((b: ReturnType<typeof boardOf>) => number)[] = [];
    for (const m of moves) {
      body = carryOut(plan.stand, body, m);
      set.push((b) => {
        const [dx, dy] = [b.pose.xMm - target.pose.xMm, b.pose.yMm - target.pose.yMm];
        if (m.kind === "yaw") return 1000 * (b.pose.headingRad - target.pose.headingRad);
        if (m.kind === "crank") return b.heightMm - target.heightMm;
        return m.kind === "slide" && m.axis === "fore-aft" ? c * dx + sn * dy : c * dy - sn * dx;
      });
      for (const off of set) expect(Math.abs(off(boardOf(plan.stand, body)))).toBeLessThan(0.05);
    }
  });
});

/** Foot heights on one plane with the given slopes. */
const planarFeet = (plan: SetOutPlan, a: number, b: number): number[] =>
  plan.stand.feet.map((f) => a * f.xMm + b * f.yMm);

describe("aim", () => {
  it.each([0, 1, 2])(
    "propagates covariance as finite differences of the geometry say (sheet %i)",
    (n) => {
      const plan = planOf(n, 0);
      const world = openBay("aim", plan);
      const s = solveSetOut(plan, readAll(world, FIVE));
      const base = s.adjustment!;
      const causes = Object.fromEntries(base.nuisances.map((c) => [c.id, c]));
      const value = (change: (a: typeof base) => void): number[] => {
        const copy = structuredClone(base);
        change(copy);
        const a = aim(copy, plan.target, s.frame, s.body);
        return [a.alongMm, a.acrossMm, a.twistRad];
      };
      for (const [id, row] of Object.entries(base.joint.index))
        for (let k = 0; k < (id === s.body ? 3 : id in causes ? 1 : 2); k++) {
          const h = k === 2 || id in causes ? 1e-5 : 0.01;
          const nudge = (by: number) => (a: typeof base) => {
            const thing = [...a.points, ...a.bodies, ...a.nuisances].find((p) => p.id === id)!;
            const key = id in causes ? "value" : (["xMm", "yMm", "headingRad"] as const)[k]!;
            (thing as Record<string, unknown>)[key] =
              (thing as unknown as Record<string, number>)[key]! + by;
          };
          const [plus, minus] = [value(nudge(h)), value(nudge(-h))];
          for (let q = 0; q < 3; q++)
            expect(s.aim!.jacobian[q]![row + k]).toBeCloseTo((plus[q]! - minus[q]!) / (2 * h), 5);
        }
    },
  );
});

describe("the path to a verdict", () => {
  it("sets the board inside tolerance in 60 simulated bays of three sheets, by its own advice alone", () => {
    let outside = 0;
    for (const n of [0, 1, 2])
      for (let i = 0; i < 20; i++) {
        const plan = planOf(n, n === 2 ? 0 : n);
        const { world, judged } = followAdvice(plan, `follow-${i}`, null);
        expect(judged.verdict.kind).toBe("set");
        const [along, across, twist] = trueError(world).map(Math.abs);
        const high = Math.abs(
          boardOf(plan.stand, world.stand).heightMm - plan.target.placement.heightMm,
        );
        const t = plan.target.tolerance;
        if (along! > t.alongMm! || across! > t.acrossMm! || high > t.heightMm!) outside++;
        else if (twist! > degToRad(t.twistDeg!)) outside++;
      }
    // Chance is at least 99 % each: more than 3 misses in 60 has a probability below 0.4 %.
    expect(outside).toBeLessThanOrEqual(3);
  });

  it("names a 20 mm slip in the walk's own readings, and is set once it is read again", () => {
    const plan = planOf(0, 0);
    let named = 0;
    for (let i = 0; i < 200; i++) {
      const random = randomFrom(i + 1);
      const entries = readAll(openBay(`slip-${i}`, plan), [
        ...FIVE,
        "tape-rl-l",
        "tape-rr-r",
        ...LEVEL,
      ]);
      const k = Math.floor(random() * 4);
      const slipped = entries[k] as Extract<SetOutEntry, { kind: "reading" }>;
      entries[k] = { ...slipped, shown: slipped.shown + (gaussian(random) > 0 ? 20 : -20) };
      const { verdict, next } = nextAct(solveSetOut(plan, entries));
      if (verdict.suspects[0] === slipped.id) named++;
      if (verdict.why === "suspect" && next.kind === "read")
        expect(next.again).toBe(verdict.suspects[0]);
    }
    expect(named).toBeGreaterThanOrEqual(190);
  });

  it("keeps the culprit under suspicion with five readings, where two tapes can look alike", () => {
    const plan = planOf(0, 0);
    let [kept, alarms, size] = [0, 0, 0];
    for (let i = 0; i < 200; i++) {
      const entries = readAll(openBay(`five-${i}`, plan), [...FIVE, ...LEVEL]);
      const slipped = entries[i % 4] as Extract<SetOutEntry, { kind: "reading" }>;
      entries[i % 4] = { ...slipped, shown: slipped.shown + 20 };
      const { suspects } = nextAct(solveSetOut(plan, entries)).verdict;
      if (suspects.length === 0) continue;
      alarms++;
      size += suspects.length;
      if (suspects.includes(slipped.id)) kept++;
    }
    expect(alarms).toBeGreaterThan(180);
    expect(kept / alarms).toBeGreaterThan(0.95);
    expect(size / alarms).toBeLessThan(2);
  });

  it("settles nothing on a move's word alone: what was shifted is measured again first", () => {
    const plan = planOf(0, 0);
    const entries = readAll(openBay("proof", plan), [...FIVE, ...LEVEL]);
    const after = solveSetOut(plan, entries).board;
    const slide: SetOutEntry = {
      kind: "move",
      id: "m",
      move: { kind: "slide", joint: 2, axis: "fore-aft", byMm: 100, awayMm: 100, leftMm: 0, after },
      rest: [],
    };
    const moved = [...entries, slide];
    expect(solveSetOut(plan, moved).owing).toContain("along");
    const reading = (slotId: string): SetOutEntry => ({
      kind: "reading",
      id: `${slotId}-2`,
      slotId,
      shown: nextAct(solveSetOut(plan, moved)).candidates.find((c) => c.slot.id === slotId)!
        .expected,
      sigma: 1.7,
    });
    expect(solveSetOut(plan, [...moved, reading("laser-badge")]).owing).toContain("along");
    expect(
      solveSetOut(plan, [...moved, reading("tape-fl-l"), reading("tape-fr-r")]).owing,
    ).not.toContain("along");
    expect(followAdvice(plan, "proof", null).judged.solution.owing).toEqual([]);
  });

  it("foretells exactly what a reading will do to the covariance", () => {
    const plan = planOf(0, 0);
    const entries = readAll(openBay("rank", plan), FIVE.slice(0, 3));
    const before = nextAct(solveSetOut(plan, entries));
    for (const c of before.candidates.filter((x) => x.slot.observes.in === "plan")) {
      const after = nextAct(
        solveSetOut(plan, [
          ...entries,
          { kind: "reading", id: "next", slotId: c.slot.id, shown: c.expected, sigma: c.sigma },
        ]),
      );
      expect(after.verdict.chanceIfNulled).toBeCloseTo(c.chanceAfter, 2);
    }
  });

  it("stops counting readings taken before a touch, and asks for fewer than all of them again", () => {
    const plan = planOf(0, 0);
    const done = followAdvice(plan, "touch", null);
    const entries: SetOutEntry[] = [
      ...done.judged.solution.readings.map((r) => ({
        kind: "reading" as const,
        id: r.id,
        slotId: r.slotId,
        shown: r.shown,
        sigma: 1.7,
      })),
    ].slice(-5);
    const touched = nextAct(
      solveSetOut(plan, [...entries, { kind: "touch", id: "t", touch: "knocked" }]),
    );
    expect(
      touched.solution.readings.every((r) => r.state === "doubt" || r.slotId.startsWith("height")),
    ).toBe(true);
    expect(touched.verdict.kind).toBe("read");
    const set = setBoard(plan, "fewer")!;
    const all = set.entries.filter((e) => e.kind === "reading").length;
    const again = readUntilSure(
      set.world,
      [...set.entries, { kind: "touch", id: "t", touch: "cranked" }],
      byAdvice,
      "x",
    );
    expect(again.judged.verdict.kind).not.toBe("read");
    expect(again.readings).toBeGreaterThan(0);
    expect(again.readings).toBeLessThan(all);
  });

  it("says so when the kit cannot prove what the sheet asks, instead of asking for ever", () => {
    const plan = planOf(2, 0);
    const vague: SetOutPlan = { ...plan, vehicle: { ...plan.vehicle, hubSigmaMm: 4 } };
    const { next } = followAdvice(vague, "vague", null).judged;
    expect(next.kind).toBe("stuck");
    expect(next.kind === "stuck" && next.message).toMatch(/place across|twist/);
  });

  it("names a reading that goes with no place of the board by what it is, never by its id", () => {
    const plan = planOf(0, 0);
    const entries: SetOutEntry[] = [
      { kind: "reading", id: "Xk3-9_q", slotId: "tape-fl-l", shown: 2_000_000, sigma: 1.7 },
    ];
    const { problem, adjustment } = solveSetOut(plan, entries);
    expect(adjustment).toBeNull();
    expect(problem!.replace(/\s/g, " ")).toBe(
      "The reading “front hub left → beam end left”, 2 000 000 mm, goes with no place of the board. Strike that line and read it again.",
    );
  });
  it("refuses a thrust sheet without rear toe, and turns the target by half the toe difference with it", () => {
    const plan = planOf(2, 0);
    expect(() => solveSetOut({ ...plan, rearToe: null }, [])).toThrow(/rear toe/);
    const straight = solveSetOut({ ...plan, rearToe: { leftRad: 0.003, rightRad: 0.003 } }, [])
      .target.pose;
    const turned = solveSetOut(plan, []).target.pose;
    expect(turned.headingRad - straight.headingRad).toBeCloseTo(0.002, 9);
  });

  it("puts the board where an independent solver puts it, from the same readings", () => {
    const s = solveSetOut(planOf(0, 0), readAll(openBay("net", planOf(0, 0)), FIVE));
    const [x, y, heading] = independentSolution(s.network)[s.body]!;
    expect(s.board.pose.xMm).toBeCloseTo(x!, 5);
    expect(s.board.pose.yMm).toBeCloseTo(y!, 5);
    expect(s.board.pose.headingRad).toBeCloseTo(heading!, 8);
  });
});

import { describe, expect, it } from "vitest";
import { act, measure, openBay, trueReading, type BenchWorld } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { followAdvice } from "@/bench/hands";
import {
  nextAct,
  secondsToSet,
  solveSetOut,
  type Move,
  type SetOutEntry,
  type SetOutPlan,
  type SetOutSolution,
} from ".";
import { carries, reliabilityOf, weakIn } from "./reliability";
import { judgeSetOut, scalarErrors } from "./verdict";

const plan = planOf(0, 0);
type Reading = Extract<SetOutEntry, { kind: "reading" }>;
const sigmas = (of: SetOutPlan): Map<string, number> =>
  new Map(nextAct(solveSetOut(of, [])).candidates.map((c) => [c.slot.id, c.sigma]));

/** Readings off a bay, each with the uncertainty of its instrument. */
function read(world: BenchWorld, ids: readonly string[], from = 0): Reading[] {
  const sigma = sigmas(world.plan);
  return ids.map((slotId, i) => ({
    kind: "reading",
    id: `r${from + i}`,
    slotId,
    shown: measure(world, slotId, from + i),
    sigma: sigma.get(slotId)!,
  }));
}
const WALK = [
  "tape-fl-l",
  "tape-fr-r",
  "tape-fl-r",
  "laser-badge",
  "tilt-pitch",
  "tilt-roll",
  "bubble-pitch",
  "bubble-roll",
];
const heightOf = (s: Parameters<typeof scalarErrors>[0]) =>
  scalarErrors(s).find((q) => q.id === "height")!;

/** The whole of every tolerance as room. */
const whole = (s: SetOutSolution) => ({
  plan: s.plane!.quantities.map((q) => q.half),
  height: Infinity,
});

describe("what a hidden slip does", () => {
  it("is what it does when it is put into the reading and everything is solved anew", () => {
    const entries = read(openBay("hidden", plan), WALK);
    const s = solveSetOut(plan, entries);
    const { hidden } = reliabilityOf(s, heightOf(s));
    const room = whole(s);
    expect(hidden.map((h) => h.id).sort()).toEqual(WALK.map((_, i) => `r${i}`).sort());
    for (const h of hidden) {
      const { smallestDetectable } = s.readings.find((r) => r.id === h.id)!.result!;
      // Small enough to stay in the straight part: what is asked is the slope.
      const share = Math.min(1, (3 * h.sigma) / smallestDetectable);
      const slipped = entries.map((e) =>
        e.id === h.id ? { ...e, shown: e.shown + share * smallestDetectable } : e,
      );
      const after = solveSetOut(plan, slipped);
      const most = Math.max(
        ...s.plane!.quantities.map(
          (q, i) => Math.abs(after.plane!.quantities[i]!.error - q.error) / share / room.plan[i]!,
        ),
      );
      const told = carries({ hidden: h, room, s, heightVariance: s.scalars.height.variance });
      expect(told / most).toBeGreaterThan(0.97);
      expect(told / most).toBeLessThan(1.03);
    }
  });

  it("is foretold for one more reading as it is once that was read", () => {
    const world = openBay("foretold", plan);
    const entries = read(world, WALK);
    const s = solveSetOut(plan, entries);
    const before = reliabilityOf(s, heightOf(s));
    const { candidates } = nextAct(s);
    for (const slotId of ["tape-fr-l", "tape-rl-l", "laser-badge", "tilt-roll"]) {
      const c = candidates.find((x) => x.slot.id === slotId)!;
      const gradient = c.play.gradient!;
      const { covariance, order } = s.adjustment!.joint;
      const qg = gradient.map((_, i) =>
        gradient.reduce((sum, g, k) => sum + covariance[i * order + k]! * g, 0),
      );
      const variance = gradient.reduce((sum, g, i) => sum + g * qg[i]!, 0);
      const witness = { of: "plan", gradient, with: qg, variance, sigma: c.sigma } as const;
      const more = solveSetOut(plan, [
        ...entries,
        { kind: "reading", id: "more", slotId, shown: c.expected, sigma: c.sigma },
      ]);
      const after = reliabilityOf(more, heightOf(more));
      for (const h of before.hidden) {
        // The same room on both sides: what is compared is the slip's reach.
        const foretold = carries({ hidden: h, room: whole(s), s, heightVariance: 1 }, witness);
        const of = after.hidden.find((x) => x.id === h.id)!;
        const is = carries({ hidden: of, room: whole(s), s: more, heightVariance: 1 });
        expect(foretold / is).toBeGreaterThan(0.98);
        expect(foretold / is).toBeLessThan(1.02);
      }
    }
  });
});

describe("a repeat is no witness", () => {
  const panels = { ...plan, school: "wheel-panels" } as const;
  const world = openBay("seat", panels);
  const often = ["panel-rl", "panel-rr", "laser-badge"].flatMap((id) => [id, id, id]);
  const entries = read(world, [...often, ...WALK.slice(4), "height-scale", "height-scale"]);

  it("three readings of one panel prove no more of its seat than one, and another seating does", () => {
    const weak = (all: readonly SetOutEntry[]): string[] => {
      const far = solveSetOut(panels, all);
      // As if the board stood where it belongs: the whole tolerance is room.
      const quantities = far.plane!.quantities.map((q) => ({ ...q, error: 0 }));
      const s = { ...far, plane: { ...far.plane!, quantities } };
      return weakIn(s, reliabilityOf(s, null)).map((w) => w.hidden.id);
    };
    expect(weak(entries)).toEqual(
      expect.arrayContaining(["seat of panel-rl#1", "seat of panel-rr#1"]),
    );
    const anew = (slotId: string, n: number): Reading => ({
      ...read(world, [slotId], 90 + n)[0]!,
      id: `anew${n}`,
      anew: true,
    });
    const more = [0, 1, 2].flatMap((n) => [anew("panel-rl", n), anew("panel-rr", 10 + n)]);
    expect(weak([...entries, ...more]).filter((id) => id.startsWith("seat of panel-r"))).toEqual(
      [],
    );
  });

  it("the advice says to seat it anew before it is read, and not otherwise", () => {
    let [seated, plain] = [0, 0];
    const asked = new Set<string>();
    for (let n = 0; n < 6; n++) {
      const { judged, end } = followAdvice(panels, `anew/${n}`, null);
      expect(end).toBe("set");
      for (const r of judged.solution.network.observations) {
        const causes = "causes" in r ? (r.causes ?? []) : [];
        const seat = causes.find((c) => c.cause.startsWith("seat of"))?.cause;
        if (!seat) continue;
        if (/#[2-9]/.test(seat)) seated++;
        else plain++;
        asked.add(seat.slice(0, 13));
      }
    }
    expect(plain).toBeGreaterThan(seated);
    expect(seated).toBeGreaterThan(0);
    expect(asked.size).toBeGreaterThan(0);
  });
});

describe("what is taken as right", () => {
  it("is a printed toe where nothing in the kit sees the wheels, and nothing where it does", () => {
    const thrust = { ...planOf(2, 0), school: "tapes" as const };
    const bare = {
      ...thrust,
      instruments: thrust.instruments.filter((i) => i.kind !== "wheel-laser"),
    };
    const assumes = (of: SetOutPlan): string[] => {
      const { end, judged } = followAdvice(of, "toe", null);
      expect(end).toBe("set");
      return judged.verdict.assumes;
    };
    expect(assumes(bare)).toContain("the rear toe as printed");
    expect(assumes({ ...bare, rearToeSigmaRad: 4e-4 })).toEqual([]);
    expect(assumes(thrust)).not.toContain("the rear toe as printed");
    expect(assumes(plan)).toEqual([]);
  });
});

describe("what was seated anew", () => {
  it("stays so when the reading that followed is struck", () => {
    const panels = { ...plan, school: "wheel-panels" } as const;
    const [one, two] = read(openBay("struck", panels), ["panel-rl", "panel-rl"]) as [
      Reading,
      Reading,
    ];
    const seats = (all: readonly SetOutEntry[]): number =>
      (solveSetOut(panels, all).network.nuisances ?? []).filter((n) =>
        n.id.startsWith("seat of panel-rl"),
      ).length;
    expect(seats([one, two])).toBe(1);
    expect(seats([one, { kind: "seated", id: "s", slotId: "panel-rl" }, two])).toBe(2);
  });
});

describe("a stand that leans", () => {
  it("holds its board elsewhere than its hooks say: by the height between them, once the lean is read", () => {
    const upright = { ...openBay("lean", plan), tapeScale: 0 };
    const up = { ...upright, stand: { ...upright.stand, feetMm: [0, 0, 0] } };
    // The rear foot 4 mm lower: the top goes back by 4 over 780.
    const back = { ...upright, stand: { ...upright.stand, feetMm: [-4, 0, 0] } };
    const at = (w: BenchWorld): number => solveSetOut(plan, read(w, WALK)).aim!.alongMm;
    const between = upright.stand.mastMm - plan.stand.hookHeightMm;
    const hooks = (w: BenchWorld): number =>
      solveSetOut(plan, read(w, WALK.slice(0, 4))).aim!.alongMm;
    expect(between).toBeGreaterThan(600);
    // What the hooks alone say of the two differs from what they and the lean say by the lever.
    const lever = at(back) - at(up) - (hooks(back) - hooks(up));
    expect(lever / ((between * 4) / 780)).toBeGreaterThan(0.7);
    expect(lever / ((between * 4) / 780)).toBeLessThan(1.3);
  });

  it("is read before anything is called set, whether the sheet limits it or not", () => {
    expect(plan.target.tolerance.pitchDeg).toBeUndefined();
    for (let n = 0; n < 4; n++) {
      const { judged } = followAdvice(plan, `level/${n}`, null);
      const read = judged.solution.readings.map((r) => r.slotId);
      for (const part of ["pitch", "roll"])
        expect(read.filter((id) => id.endsWith(part)).length).toBeGreaterThanOrEqual(2);
    }
  });
});

/** Its adjusters were put at their marks. */
const AT_MARKS: SetOutEntry = {
  kind: "move",
  id: "zero",
  move: { kind: "zero", adjusters: [], after: solveSetOut(plan, []).board },
  rest: [],
};

/** What comes once the adjusters are at their marks. */
function firstCrank() {
  const { next } = nextAct(solveSetOut(plan, [AT_MARKS]));
  if (next.kind !== "move" || next.move.kind !== "crank") throw new Error("No crank.");
  return next.move;
}

describe("the first act at a stand", () => {
  it("cranks to the figure of its own scale, and knows the height from it", () => {
    const next = firstCrank();
    const wanted = plan.target.placement.heightMm - plan.stand.scaleOffsetMm;
    expect(next.until).toEqual({ slotId: "height-scale", shown: wanted });
    const { predicted: _, ...move } = next;
    const s = solveSetOut(plan, [{ kind: "move", id: "m", move, rest: [] }]);
    expect(s.scalars.height.value).toBeCloseTo(plan.target.placement.heightMm, 6);
    expect(Math.sqrt(s.scalars.height.variance)).toBeLessThan(2);
    // It is no proof: the height is read once it stands there.
    expect(s.unproved).toContain("height");
    const world = act(openBay("crank", plan), { id: "m", kind: "move", move });
    expect(Math.abs(measure(world, "height-scale", 0) - wanted)).toBeLessThan(8);
    const without = { ...plan, instruments: plan.instruments.filter((i) => i.kind !== "scale") };
    expect(nextAct(solveSetOut(without, [AT_MARKS])).next.kind).toBe("read");
  });
});

describe("a crank that is watched live", () => {
  it("knows the height by the reading that ended it alone: no better, and where that says", () => {
    const { predicted: _, ...crank } = firstCrank();
    const { shown } = crank.until!;
    const live: Move = { ...crank, until: { ...crank.until!, ended: shown - 3 } };
    const scale = plan.instruments.find((i) => i.kind === "scale")!;
    const watched: SetOutEntry[] = [{ kind: "move", id: "m", move: live, rest: [] }];
    const reading: SetOutEntry = {
      kind: "reading",
      id: "r",
      slotId: "height-scale",
      shown: shown - 3,
      sigma: scale.sigmaMm,
    };
    // Without its reading, nothing is known of a height nobody had read before.
    expect(Math.sqrt(solveSetOut(plan, watched).scalars.height.variance)).toBeGreaterThan(50);
    const { value, variance } = solveSetOut(plan, [...watched, reading]).scalars.height;
    expect(Math.sqrt(variance) / scale.sigmaMm).toBeGreaterThan(0.98);
    expect(Math.sqrt(variance) / scale.sigmaMm).toBeLessThan(1.01);
    expect(value).toBeCloseTo(plan.target.placement.heightMm - 3, 0);
    // In the bay it stands where the figure was left, not where it was to go.
    const bay = (move: Move) => act(openBay("live", plan), { id: "m", kind: "move", move });
    const off = trueReading(bay(live), "height-scale") - trueReading(bay(crank), "height-scale");
    expect(off).toBeCloseTo(-3, 4);
  });
});

describe("how long it is likely to be", () => {
  it("falls as readings come in, and is nothing once it is set", () => {
    const entries = read(openBay("time", plan), WALK);
    const early = secondsToSet(nextAct(solveSetOut(plan, entries.slice(0, 4))))!;
    expect(early).toBeGreaterThan(60);
    expect(early).toBeLessThan(1200);
    const done = followAdvice(plan, "time", null);
    expect(secondsToSet(done.judged)).toBe(0);
    expect(judgeSetOut(done.judged.solution).kind).toBe("set");
  });
});

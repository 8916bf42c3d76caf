import { describe, expect, it } from "vitest";
import { measure, openBay, type BenchWorld } from "@/devices/bench/world";
import { gaussian, randomFrom, type Random } from "@/core/math/random";
import { planOf } from "@/tests/fixtures";
import { setBoard } from "@/bench/hands";
import {
  aged,
  bearWitness,
  driftBandMm,
  judgeSetOut,
  learnDrift,
  nextAct,
  readingSigma,
  slopsOf,
  slotsFor,
  solveSetOut,
  splitHalves,
  TOUCHES,
  witnessPlan,
  type SetOutEntry,
  type SetOutPlan,
} from ".";

const plan = planOf(0, 0);
const judged = (of: SetOutPlan, entries: readonly SetOutEntry[]) => {
  const s = solveSetOut(of, entries);
  return { s, verdict: judgeSetOut(s) };
};

describe("how far a reading or a mark may be off", () => {
  const set = setBoard(plan, "slop/1")!;
  const { s, verdict } = judged(plan, set.entries);
  const slops = slopsOf(s, verdict);
  const { setChance } = plan.thresholds;

  it("is where the chance comes down to what “set” asks: readings, perturbed and solved anew", () => {
    const readings = slops.filter((x) => x.of === "reading" && x.most < 12);
    expect(readings.length).toBeGreaterThan(3);
    for (const { id, most, side } of readings) {
      // What shows too much by that is what it should show, and so much more.
      const put = (by: number): number => {
        const entries = set.entries.map((e) => {
          if (e.kind !== "reading" || e.id !== id) return e;
          const slot = s.slots.find((x) => x.id === e.slotId)!;
          return { ...e, shown: slot.toShown(slot.toModel(e.shown) - by) };
        });
        return judged(plan, entries).verdict.chance;
      };
      expect(Math.abs(put(side * most) - setChance), id).toBeLessThan(0.003);
      expect(put(side * most * 0.6), id).toBeGreaterThan(setChance);
      expect(put(side * most * 1.5), id).toBeLessThan(setChance);
    }
  });

  it("the same of a mark: a badge the book has beside its place", () => {
    const badge = slops.find((x) => x.id === "badgeF-y")!;
    expect(badge.most).toBeLessThan(20);
    const put = (by: number): number => {
      const { frontBadge } = plan.vehicle;
      const vehicle = { ...plan.vehicle, frontBadge: { ...frontBadge, yMm: frontBadge.yMm - by } };
      return judged({ ...plan, vehicle }, set.entries).verdict.chance;
    };
    expect(Math.abs(put(badge.side * badge.most) - setChance)).toBeLessThan(0.003);
    expect(put(badge.side * badge.most * 1.4)).toBeLessThan(setChance);
  });

  it("says where to be careful first, and nothing while nothing is known", () => {
    expect(slops.map((x) => x.most)).toEqual(slops.map((x) => x.most).sort((a, b) => a - b));
    const bare = judged(plan, []);
    expect(slopsOf(bare.s, bare.verdict)).toEqual([]);
  });
});

/** A board as it was rolled in, with the same readings every time. */
function readAll(seed: string, slip = 0): SetOutEntry[] {
  const world = openBay(seed, plan);
  const slots = slotsFor(plan).filter(
    (x) => /^(tape-|laser-badge$)/.test(x.id) || ["pitch", "roll"].includes(x.observes.in),
  );
  return slots.map((slot) => {
    const instrument = plan.instruments.find((i) => i.kind === slot.instrument)!;
    const shown = measure(world, slot.id, 0);
    return {
      kind: "reading",
      id: slot.id,
      slotId: slot.id,
      shown: shown + (slot.id === "tape-fl-l" ? slip : 0),
      sigma: readingSigma(instrument, slot, shown),
    };
  });
}

describe("two halves of the readings", () => {
  it("differ by as much as they say they may: one in twenty beyond 5 %, two thirds within one sigma", () => {
    const TIMES = 160;
    const found = Array.from({ length: TIMES }, (_, n) =>
      splitHalves(solveSetOut(plan, readAll(`halves/${n}`)))!,
    );
    for (const { of } of found) expect(of[0].filter((id) => of[1].includes(id))).toEqual([]);
    const share = (is: (h: (typeof found)[number]) => boolean): number =>
      found.filter(is).length / TIMES;
    expect(share((h) => h.p < 0.05)).toBeGreaterThan(0.02);
    expect(share((h) => h.p < 0.05)).toBeLessThan(0.085);
    expect(share((h) => h.p < 0.5)).toBeGreaterThan(0.42);
    expect(share((h) => h.p < 0.5)).toBeLessThan(0.58);
    expect(share((h) => Math.abs(h.turnRad) < h.sigmaRad)).toBeGreaterThan(0.61);
    expect(share((h) => Math.abs(h.turnRad) < h.sigmaRad)).toBeLessThan(0.75);
  });

  it("a slip in one half shows; where one half alone would not fix the board there are none", () => {
    expect(splitHalves(solveSetOut(plan, readAll("halves/b", 25)))!.p).toBeLessThan(1e-3);
    expect(splitHalves(solveSetOut(plan, readAll("halves/b").slice(0, 3)))).toBeNull();
    expect(splitHalves(solveSetOut(plan, []))).toBeNull();
  });
});

/** Somebody ran into the stand: as far as the product says knocks go. */
function knocked(world: BenchWorld, random: Random): BenchWorld {
  const { planMm, headingRad, heightMm } = TOUCHES.knocked.widening;
  const { base, mastMm } = world.stand;
  const shoved = {
    xMm: base.xMm + planMm * gaussian(random),
    yMm: base.yMm + planMm * gaussian(random),
    headingRad: base.headingRad + headingRad * gaussian(random),
  };
  const stand = { ...world.stand, base: shoved, mastMm: mastMm + heightMm * gaussian(random) };
  return { ...world, stand };
}

describe("witness readings", () => {
  it("show as many knocks as they say, and hardly ever doubt a board that nobody touched", () => {
    const TIMES = 50;
    const BOARDS = 3;
    const random = randomFrom(77);
    let [stated, found, alarms] = [0, 0, 0];
    for (let b = 0; b < BOARDS; b++) {
      const set = setBoard(plan, `witness/${b}`)!;
      const { solution, candidates } = nextAct(solveSetOut(plan, set.entries));
      const asked = witnessPlan(solution, candidates)!;
      expect(asked.slots.length).toBeLessThanOrEqual(4);
      stated += asked.share / BOARDS;
      const stood = (world: typeof set.world, nth: number): boolean =>
        bearWitness(
          solution,
          candidates,
          asked.slots.map((slot) => {
            const instrument = plan.instruments.find((i) => i.kind === slot.instrument)!;
            const shown = measure(world, slot.id, nth);
            return { slotId: slot.id, shown, sigma: readingSigma(instrument, slot, shown) };
          }),
        )!.stood;
      for (let n = 0; n < TIMES; n++) {
        if (!stood(knocked(set.world, random), 100 + n)) found++;
        if (!stood(set.world, 200 + n)) alarms++;
      }
    }
    const all = TIMES * BOARDS;
    expect(stated).toBeGreaterThan(0.9);
    expect(Math.abs(found / all - stated)).toBeLessThan(0.05);
    expect(alarms / all).toBeLessThan(0.06);
  });

  it("are none while nothing is known, and a laser that would take the board off is not among them", () => {
    expect(witnessPlan(nextAct(solveSetOut(plan, [])).solution, [])).toBeNull();
    const set = setBoard(plan, "witness/0")!;
    const { solution, candidates } = nextAct(solveSetOut(plan, set.entries));
    const hung = witnessPlan({ ...solution, laserOff: true }, candidates)!;
    expect(hung.slots.map((x) => x.instrument)).not.toContain("laser");
    expect(hung.share).toBeGreaterThan(0.5);
  });
});

describe("a proof that ages", () => {
  /** Stands that creep, each at its own pace, and are read again now and then. */
  const stand = (random: Random, sights: number) => {
    const rate = 0.25 * Math.exp(0.9 * gaussian(random));
    return {
      rate,
      sights: Array.from({ length: sights }, () => {
        const hours = 0.5 + 5 * random();
        const sigmaMm = 0.8 + random();
        return { hours, sigmaMm, mm: rate * hours * gaussian(random) + sigmaMm * gaussian(random) };
      }),
    };
  };

  it.each([0, 3, 15])(
    "after %i sights of a stand, four bands in five hold (three quarters to 85 in 100)",
    (sights) => {
      const random = randomFrom(80 + sights);
      const TIMES = 500;
      let held = 0;
      for (let n = 0; n < TIMES; n++) {
        const { rate, sights: seen } = stand(random, sights);
        const hours = 1 + 3 * random();
        const gone = rate * hours * gaussian(random);
        if (Math.abs(gone) <= driftBandMm(learnDrift(seen), hours)) held++;
      }
      expect(held / TIMES).toBeGreaterThan(0.75);
      expect(held / TIMES).toBeLessThan(0.85);
    },
  );

  it("a stand that was seen to stay is trusted longer than one that was seen to go", () => {
    const still = learnDrift(
      Array.from({ length: 12 }, () => ({ hours: 4, mm: 0.2, sigmaMm: 0.8 })),
    );
    const creeps = learnDrift(
      Array.from({ length: 12 }, () => ({ hours: 4, mm: 6, sigmaMm: 0.8 })),
    );
    expect(driftBandMm(still, 2)).toBeLessThan(0.6 * driftBandMm(learnDrift([]), 2));
    expect(driftBandMm(creeps, 2)).toBeGreaterThan(3 * driftBandMm(learnDrift([]), 2));
  });

  it("the chance falls with the hours, and one reading brings it back", () => {
    const set = setBoard(plan, "aged/1")!;
    const { solution, verdict, candidates } = nextAct(solveSetOut(plan, set.entries));
    const drift = learnDrift([]);
    const after = (hours: number) => aged(solution, candidates, drift, hours)!;
    expect(after(0).chance).toBeCloseTo(verdict.chance, 3);
    const chances = [0, 1, 4, 12].map((h) => after(h).chance);
    expect(chances).toEqual([...chances].sort((a, b) => b - a));
    const long = after(12);
    expect(long.chance).toBeLessThan(0.99);
    expect(long.restore!.chance).toBeGreaterThan(long.chance);
    expect(aged(nextAct(solveSetOut(plan, [])).solution, [], drift, 1)?.chance ?? 0).toBeLessThan(
      0.5,
    );
  });
});

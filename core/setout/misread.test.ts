import { describe, expect, it } from "vitest";
import { measure, openBay } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { setBoard } from "@/bench/hands";
import { nextAct, solveSetOut, type SetOutEntry } from ".";
import { centredProbability } from "./chance";
import { countingMisreads } from "./misread";
import { reliabilityOf } from "./reliability";
import type { SetOutSolution } from "./solve";

const plan = planOf(0, 0);
const WALK = ["tape-fl-l", "tape-fr-r", "laser-badge", "tape-fl-r", "tape-fr-l", "tilt-pitch"];

type Slip = { slotId: string; mm: number };

/** Readings off a bay, one of them misread. */
function read(seed: string, ids: readonly string[], slip?: Slip): SetOutEntry[] {
  const sigma = new Map(nextAct(solveSetOut(plan, [])).candidates.map((c) => [c.slot.id, c.sigma]));
  const world = openBay(seed, plan);
  return ids.map((slotId, i) => ({
    kind: "reading",
    id: slotId,
    slotId,
    shown: measure(world, slotId, i) + (slip?.slotId === slotId ? slip.mm : 0),
    sigma: sigma.get(slotId)!,
  }));
}

/** The same, had the board been so far from its place, as a share of its limits. */
function here(s: SetOutSolution, share = 0): SetOutSolution {
  const quantities = s.plane!.quantities.map((q) => ({ ...q, error: share * q.half }));
  return { ...s, plane: { ...s.plane!, quantities } };
}

const chanceOf = ({ plane }: SetOutSolution, error = plane!.quantities.map((q) => q.error)) =>
  centredProbability(
    error,
    plane!.covariance,
    plane!.quantities.map((q) => q.half),
  );

describe("a chance that counts with misreading", () => {
  it("is lower by what the board's place would be without the reading that stands out", () => {
    const entries = read("misread", WALK, { slotId: "tape-fl-l", mm: 9 });
    const s = here(solveSetOut(plan, entries), 0.2);
    const { hidden } = reliabilityOf(s, null);
    const one = hidden.filter((h) => h.id === "tape-fl-l");
    const told = countingMisreads(s, one).chance;
    // Solved anew without it: an adjustment of its own.
    const left = solveSetOut(
      plan,
      entries.filter((e) => e.id !== "tape-fl-l"),
    );
    const full = solveSetOut(plan, entries);
    const away = left.plane!.quantities.map(
      (q, i) => q.error - full.plane!.quantities[i]!.error + 0.2 * q.half,
    );
    const [good, without] = [chanceOf(s), chanceOf(left, away)];
    expect(good - without).toBeGreaterThan(0.05);
    // A mixture of both: the share of the second is what the reading's own residual makes of 1 : 50.
    const share = (good - told) / (good - without);
    const { w, redundancy } = full.readings.find((r) => r.id === "tape-fl-l")!.result!;
    const bare = 0.02 * Math.sqrt(1 / redundancy / (1 / redundancy + 64));
    const odds = bare * Math.exp(0.5 * w * w * (64 / (64 + 1 / redundancy)));
    expect(share).toBeCloseTo(odds / (1 + odds), 2);
    expect(share).toBeGreaterThan(0.01);
  });

  it("costs next to nothing where a board was set with care", () => {
    const costs = ["a", "b", "c", "d", "e"].map((seed) => {
      const s = solveSetOut(plan, setBoard(plan, `careful ${seed}`)!.entries);
      return chanceOf(s) - countingMisreads(s, reliabilityOf(s, null).hidden).chance;
    });
    expect(Math.min(...costs)).toBeGreaterThan(0);
    expect(costs.sort((a, b) => a - b)[2]).toBeLessThan(0.002);
  });

  it("asks for one more look before it is called set", () => {
    const slipped = read("look", WALK, { slotId: "tape-fr-r", mm: 8 });
    const s = here(solveSetOut(plan, slipped));
    const { doubts, chance } = countingMisreads(s, reliabilityOf(s, null).hidden);
    expect(chance).toBeLessThan(chanceOf(s) - 0.005);
    expect(doubts[0]!.readings.join()).toMatch(/tape-f/);
  });
});

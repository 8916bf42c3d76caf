import { describe, expect, it } from "vitest";
import { DEFAULT_THRESHOLDS, SCHOOLS, type SetOutPlan } from "@/core/setout";
import { firstTarget } from "@/core/sheet";
import { INSTRUMENTS, STANDS } from "@/demo/data/kit";
import { SHEETS } from "@/demo/data/sheets";
import { VEHICLES } from "@/demo/data/vehicles";
import { replaySetOut } from "@/devices/bench/replay";
import { changed, changesFor, worthOf, type Runs } from "./worth";

const sheet = SHEETS.find((s) => s.id === "lisse-forward")!;
const level = { value: 0, sigma: 5e-4 };
const PLAN: SetOutPlan = {
  vehicle: VEHICLES.find((v) => sheet.appliesTo.vehicles.includes(v.id))!,
  target: firstTarget(sheet),
  stand: STANDS[0]!,
  instruments: INSTRUMENTS.filter((i) => i.kind !== "rig" && i.kind !== "range"),
  rearToe: null,
  thresholds: DEFAULT_THRESHOLDS,
  floorStepMm: { value: 0, sigma: 1 },
  floorSlopeRad: { ahead: level, left: level },
};

describe("what an instrument would be worth", () => {
  it("asks about finer ones of the kit, about other ways with it, and about kinds it has not", () => {
    const asked = changesFor([PLAN]);
    const of = (kind: string) => asked.filter((c) => c.kind === kind);
    expect(of("finer").map((c) => c.kind === "finer" && c.instrumentId)).toEqual(
      PLAN.instruments.map((i) => i.id),
    );
    expect(of("another").map((c) => c.kind === "another" && [c.school, c.lacks])).toEqual([
      ["wheel-panels", ["range"]],
      ["beam-lasers", ["beam-laser"]],
      ["rig", ["rig"]],
    ]);
    // The way they are set out already is no other, and nothing for mats is offered for a board.
    const ways = of("way").map((c) => (c.kind === "way" ? c.school : ""));
    expect(ways).toContain("wheel-lasers");
    expect(ways).not.toContain("tapes");
    expect(ways.some((id) => SCHOOLS[id as "tapes"].for)).toBe(false);
    const [rig] = of("another").filter((c) => c.kind === "another" && c.school === "rig");
    expect(changed(PLAN, rig!)).toMatchObject({ school: "rig" });
    expect(
      changed({ ...PLAN, school: "wheel-lasers" }, { kind: "way", school: "wheel-lasers" }),
    ).toBe(null);
    const fine = changed(PLAN, { kind: "finer", instrumentId: "T-3", name: "" })!;
    const sigma = (p: SetOutPlan): number => p.instruments.find((i) => i.id === "T-3")!.sigmaMm;
    expect(sigma(fine)).toBe(sigma(PLAN) / 2);
  });
  it("is what set-outs gone through again say: a rig saves minutes, a rule nobody reads none", () => {
    const seconds = (plan: SetOutPlan): number[] =>
      Array.from({ length: 6 }, (_, n) => {
        const run = replaySetOut(plan, `worth-test/${n}`);
        expect(run.set).toBe(true);
        return run.seconds;
      });
    const before = seconds(PLAN);
    expect(seconds(PLAN)).toEqual(before);
    const saved = (change: Parameters<typeof changed>[1]): number =>
      worthOf([{ before, after: seconds(changed(PLAN, change)!) }], change.kind !== "finer")
        .minutes;
    expect(saved({ kind: "another", school: "rig", lacks: ["rig"] })).toBeGreaterThan(3);
    expect(Math.abs(saved({ kind: "finer", instrumentId: "R-2", name: "" }))).toBeLessThan(0.05);
  });
  it("counts no luck as worth: where chance alone tells two ways apart it is nothing in the mean", () => {
    // Two ways that take as long, with the same scatter; the better half is chosen, the other counted.
    let n = 0;
    const noise = (): number => 120 * Math.sin(12.9898 * ++n + 78.233 * ((n * n) % 17));
    const runs = (by: number): Runs => ({
      before: Array.from({ length: 6 }, () => 600 + noise()),
      after: Array.from({ length: 6 }, () => 600 - by + noise()),
    });
    const even = worthOf(
      Array.from({ length: 4000 }, () => runs(0)),
      true,
    );
    expect(Math.abs(even.minutes)).toBeLessThan(3 * even.errorMin);
    const real = worthOf(
      Array.from({ length: 400 }, () => runs(300)),
      true,
    );
    expect(real.minutes).toBeCloseTo(5, 0);
    // What it does not reach saves nothing, and what is never set counts for nothing.
    expect(worthOf([null, { before: [null], after: [10] }], false).minutes).toBe(0);
  });
});

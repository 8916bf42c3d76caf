import DxfParser from "dxf-parser";
import { describe, expect, it } from "vitest";
import { INSTRUMENTS, STANDS } from "@/demo/data/kit";
import { SHEETS } from "@/demo/data/sheets";
import { firstTarget } from "@/core/sheet";
import { VEHICLES } from "@/demo/data/vehicles";
import {
  DEFAULT_THRESHOLDS,
  floorMarks,
  markOut,
  schoolChances,
  toDxf,
  toSvg,
  type SetOutPlan,
} from ".";

const plan: SetOutPlan = {
  vehicle: VEHICLES[0]!,
  target: firstTarget(SHEETS[0]!),
  stand: STANDS[0]!,
  instruments: INSTRUMENTS,
  rearToe: null,
  thresholds: DEFAULT_THRESHOLDS,
};
const v = plan.vehicle;

describe("the mark-out sheet", () => {
  it("says what each tape shows when the board is right: by Pythagoras, from the book's dimensions", () => {
    const { steps } = markOut(plan, "tapes");
    const shown = (id: string): number => steps.find((s) => s.slot.id === id)!.expected;
    const ahead = plan.target.placement.alongMm;
    const rise = plan.stand.hookHeightMm - v.hubHeightMm;
    const [hub, end] = [v.trackFrontMm / 2 + v.hubCapOutMm, plan.stand.beamHalfMm];
    expect(shown("tape-fl-l")).toBeCloseTo(Math.hypot(ahead, end - hub, rise), 6);
    expect(shown("tape-fl-r")).toBeCloseTo(Math.hypot(ahead, end + hub, rise), 6);
    expect(shown("tape-fl-l")).toBeCloseTo(shown("tape-fr-r"), 6);
    expect(shown("height-rule")).toBe(plan.target.placement.heightMm);
    const box = markOut(plan, "floor-box").steps;
    expect(box.find((s) => s.slot.id === "box-centre")!.expected).toBeCloseTo(0, 6);
    expect(box.find((s) => s.slot.id === "box-hub-l")!.expected).toBeCloseTo(ahead, 6);
  });
  it("foretells how sure each further reading makes one, and diagonals help", () => {
    const { steps } = markOut(plan, "tapes");
    steps
      .slice(1)
      .forEach((s, i) => expect(s.chance).toBeGreaterThanOrEqual(steps[i]!.chance - 1e-3));
    const after = (n: number): number => steps[n - 1]!.chance;
    expect(after(4)).toBeGreaterThan(after(2));
    const ranked = schoolChances(plan, ["tapes", "floor-box", "wheel-panels", "free"]);
    expect(ranked.map((r) => r.school).sort()).toEqual(["floor-box", "tapes", "wheel-panels"]);
    expect([...ranked].sort((a, b) => b.chance - a.chance)).toEqual(ranked);
  });
});

describe("the mark-out as a drawing", () => {
  const m = markOut(plan, "floor-box");
  it("opens in an independent DXF reader, every mark where it belongs, in millimetres", () => {
    const dxf = new DxfParser().parseSync(toDxf(m))!;
    expect(dxf.header.$INSUNITS).toBe(4);
    const points = dxf.entities.filter((e) => e.type === "POINT") as unknown as {
      position: { x: number; y: number };
    }[];
    expect(points.map((p) => [p.position.x, p.position.y])).toEqual(
      floorMarks(plan).map((p) => [expect.closeTo(p.xMm, 3), expect.closeTo(p.yMm, 3)]),
    );
    const beam = dxf.entities.find((e) => e.layer === "board") as unknown as {
      vertices: { x: number; y: number }[];
    };
    const [a, b] = beam.vertices;
    expect(Math.hypot(a!.x - b!.x, a!.y - b!.y)).toBeCloseTo(2 * plan.stand.beamHalfMm, 3);
    expect(dxf.entities.filter((e) => e.type === "TEXT")).toHaveLength(m.marks.length);
  });
  it("is at true scale as SVG: a unit is a millimetre of paper and of floor", () => {
    const svg = toSvg(m);
    const [, wide, high, boxWide, boxHigh] =
      /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg)!;
    expect([wide, high]).toEqual([boxWide, boxHigh]);
    const line = /class="vehicle" x1="([\d.]+)" y1="([\d.]+)" x2="([\d.]+)" y2="([\d.]+)"/
      .exec(svg)!
      .slice(1)
      .map(Number);
    expect(Math.hypot(line[0]! - line[2]!, line[1]! - line[3]!)).toBeCloseTo(
      v.trackRearMm + 2 * v.hubCapOutMm,
      1,
    );
    // Vehicle left is up, forward is to the right.
    const y = (id: string): number =>
      Number(new RegExp(`id="${id}"><path d="M[\\d.]+ ([\\d.]+)`).exec(svg)![1]);
    expect(y("hubFL")).toBeLessThan(y("hubFR"));
  });
});

import DxfParser from "dxf-parser";
import { describe, expect, it } from "vitest";
import { INSTRUMENTS, STANDS } from "@/demo/data/kit";
import { MIRRORS } from "@/demo/data/mirror";
import { SHEETS } from "@/demo/data/sheets";
import { firstTarget } from "@/core/sheet";
import { VEHICLES } from "@/demo/data/vehicles";
import {
  DEFAULT_THRESHOLDS,
  floorMarks,
  HANDS,
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

describe("the mark-out of a floor mark", () => {
  const sheet = MIRRORS[1]!;
  const vehicle = VEHICLES.find((x) => x.id === sheet.appliesTo.vehicles[0])!;
  const own: SetOutPlan = {
    ...plan,
    vehicle,
    target: firstTarget(sheet),
    setup: sheet.setups[0]!,
    stand: HANDS,
  };
  const third = vehicle.furtherAxles![0]!;
  const front = vehicle.trackFrontMm / 2 + vehicle.hubCapOutMm;
  // The line through both hubs of the left, with the third axle at its rear end.
  const slope = (front - third.hubHalfMm) / (vehicle.wheelbaseMm - third.aheadMm);
  const { alongMm, acrossMm } = own.target.placement;

  it("says what laser, tape and diagonal show, by plane geometry from the axles the sheet names", () => {
    const { steps, marks } = markOut(own, "mark-laser");
    const shown = (id: string): number => steps.find((s) => s.slot.id === id)!.expected;
    expect(shown("mark-line")).toBeCloseTo(acrossMm, 6);
    expect(shown("mark-along")).toBeCloseTo(-alongMm, 6);
    const n = Math.hypot(1, slope);
    const [x, y] = [
      third.aheadMm + (alongMm - slope * acrossMm) / n,
      third.hubHalfMm + (slope * alongMm + acrossMm) / n,
    ];
    const at = marks.find((m) => m.id === "board")!;
    expect([at.xMm, at.yMm]).toEqual([expect.closeTo(x, 6), expect.closeTo(y, 6)]);
    const diagonal = Math.hypot(x - third.aheadMm, y + third.hubHalfMm);
    expect(shown("mark-across")).toBeCloseTo(diagonal, 6);
    // Two readings fix it; the diagonal only checks, and all is said before anything is measured.
    expect(steps[1]!.chance).toBeGreaterThan(0.99);
  });

  it("is drawn from its hub’s line, in a DXF that another reader opens", () => {
    const dxf = new DxfParser().parseSync(toDxf(markOut(own, "mark-cord")))!;
    const out = dxf.entities.find((e) => e.layer === "board") as unknown as {
      vertices: { x: number; y: number }[];
    };
    const [a, b] = out.vertices;
    expect(Math.hypot(a!.x - b!.x, a!.y - b!.y)).toBeCloseTo(acrossMm, 3);
    const names = dxf.entities.flatMap((e) =>
      e.type === "TEXT" ? [(e as never as { text: string }).text] : [],
    );
    expect(names).toContain("left floor mark");
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

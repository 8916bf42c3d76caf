import fc from "fast-check";
import DxfParser from "dxf-parser";
import { describe, expect, it } from "vitest";
import { BAYS } from "@/demo/data/bays";
import { baySchema, type Bay } from "./bay";
import { isInside } from "./convex";
import { added, dragged, moved, placesOf, spotsOver, without, type Hold } from "./draw";
import { bayDxf, bayFromDxf, baySvg } from "./drawing-file";

const TODAY = "2026-11-02";
const [LONG, CORNERED] = BAYS as [Bay, Bay];
const KINDS = ["corner", "thing", "door", "light", "likeness", "spot"] as const;

describe("a bay that is drawn", () => {
  it("stays one whatever is added and moved, and is as before when that is taken out again", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...KINDS),
        fc.tuple(fc.integer({ min: 0, max: 13_200 }), fc.integer({ min: 0, max: 6400 })),
        fc.tuple(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 })),
        (kind, place, by) => {
          const { bay, hold } = added(CORNERED, kind, place, TODAY);
          expect(placesOf(bay, hold).length).toBeGreaterThan(0);
          const there = moved(bay, hold, ...by);
          const back = moved(there, hold, -by[0], -by[1]);
          expect(back).toEqual(bay);
          expect(without(there, hold)).toEqual(CORNERED);
        },
      ),
      { numRuns: 60 },
    );
  });
  it("takes what is dragged to whole steps, to another corner's line, or onto the wall", () => {
    const bench: Hold = { kind: "thing", i: 0 };
    const free = dragged(LONG, bench, [-3033, -2041]);
    expect(placesOf(free.bay, bench)[0]).toEqual([5950, 3750]);
    expect(free.guides).toEqual({ x: null, y: null });
    // Its end at 12 600 comes to the wall at 13 200; its back stays on the wall's line.
    const lined = dragged(LONG, bench, [520, -40]);
    expect(lined.guides).toEqual({ x: 13_200, y: 6400 });
    expect(placesOf(lined.bay, bench)[1]).toEqual([13_200, 5800]);
    const door: Hold = { kind: "door", i: 0, end: 1 };
    expect(placesOf(dragged(LONG, door, [180, 333]).bay, door)).toEqual([[0, 5350]]);
    const corner: Hold = { kind: "thing", i: 0, corner: 2 };
    expect(dragged(LONG, corner, [-1000, -200]).bay.obstacles[0]!.outline).toEqual([
      [9000, 5800],
      [11_600, 5800],
      [11_600, 6200],
      [9000, 6200],
    ]);
  });
  it("has its spots on free floor, and keeps the others' readings when one is taken out", () => {
    const spots = spotsOver(CORNERED, 1500);
    expect(spots.length).toBeGreaterThan(15);
    for (const { xMm, yMm } of spots) {
      expect(isInside([xMm, yMm], CORNERED.outline)).toBe(true);
      expect(isInside([xMm, yMm], CORNERED.obstacles[0]!.outline)).toBe(false);
    }
    const setup = {
      levelMmPerM: 0.2,
      readMm: 0.5,
      readings: [0, 1, 2].map((spot) => ({ spot, mm: spot })),
    };
    const bay = { ...CORNERED, floor: { on: TODAY, spots, setups: [setup] } };
    const { floor } = without(bay, { kind: "spot", i: 1 });
    expect(floor!.spots[1]).toEqual(spots[2]);
    expect(floor!.setups[0]!.readings).toEqual([
      { spot: 0, mm: 0 },
      { spot: 1, mm: 2 },
    ]);
  });
});

describe("a bay as a drawing", () => {
  const full = baySchema.parse({
    ...CORNERED,
    lights: [
      { name: "north window", kind: "window", from: [1000, 0], to: [2500, 0], covers: true },
    ],
    likenesses: [{ name: "Rolltür, gestreift", from: [3000, 0], to: [4000, 0] }],
  });
  it("comes back from DXF as it went out", () => {
    expect(bayFromDxf(bayDxf(full), full)).toEqual(full);
  });
  it("is read by another reader of DXF, and by one of SVG", () => {
    const { entities, header } = new DxfParser().parseSync(bayDxf(full))!;
    expect(header.$INSUNITS).toBe(4);
    const lines = entities as unknown as {
      layer: string;
      vertices?: { x: number; y: number; z: number }[];
      text?: string;
    }[];
    const walls = lines.find((e) => e.layer === "WALLS")!;
    expect(walls.vertices!.map((v) => [v.x, v.y])).toEqual(full.outline);
    expect(lines.filter((e) => e.text).map((e) => e.text)).toContain("glass rack");
    const svg = baySvg({ ...full, name: "Bay <2>" });
    expect(svg).toContain("<title>Bay &lt;2&gt;</title>");
    expect(svg).toContain('width="12600mm"');
    expect(svg.match(/<polygon/g)).toHaveLength(1 + full.obstacles.length);
  });
  it("comes in from a drawing in metres, of lightweight polylines", () => {
    const dxf = [
      ...[
        0,
        "SECTION",
        2,
        "HEADER",
        9,
        "$INSUNITS",
        70,
        6,
        0,
        "ENDSEC",
        0,
        "SECTION",
        2,
        "ENTITIES",
      ],
      ...[
        0,
        "LWPOLYLINE",
        8,
        "walls",
        90,
        4,
        70,
        1,
        10,
        0,
        20,
        0,
        10,
        8,
        20,
        0,
        10,
        8,
        20,
        5,
        10,
        0,
        20,
        5,
      ],
      ...[0, "LINE", 8, "DOORS", 10, 8, 20, 1, 11, 8, 21, 4, 0, "ENDSEC", 0, "EOF"],
    ].join("\r\n");
    const bay = bayFromDxf(dxf, full);
    expect(bay.outline).toEqual([
      [0, 0],
      [8000, 0],
      [8000, 5000],
      [0, 5000],
    ]);
    expect(bay.doors).toEqual([
      [
        [8000, 1000],
        [8000, 4000],
      ],
    ]);
    expect(bay.name).toBe(full.name);
  });
  it.each([
    ["hello\nthere", /line 1: a group code/],
    ["0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n", /WALLS: draw the walls/],
    ["0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n13\n0\nENDSEC\n", /\$INSUNITS: draw in millimetres/],
    [bayDxf(CORNERED).replace("11800", "wide"), /“wide” is no coordinate/],
  ])("that is none is refused by name", (text, words) => {
    expect(() => bayFromDxf(text, full)).toThrow(words);
  });
});

import { describe, expect, it } from "vitest";
import {
  parseQuantity,
  readFigure,
  type FigureUnit,
  type Parsed,
  type Quantity,
  type UnitId,
} from ".";
import { FIGURES } from "./figure";

const TAPE: Quantity = { name: "the tape", dimension: "length", min: 500, max: 20_000 };
const RULE: Quantity = { name: "the rule reading", dimension: "length", min: -50, max: 2500 };
const TILT: Quantity = { name: "the lean", dimension: "angle", min: -0.2, max: 0.2 };
const AIR: Quantity = { name: "the pressure", dimension: "pressure", min: 50, max: 1100 };
const PLACES: Record<string, [Quantity, UnitId, number]> = {
  tape: [TAPE, "mm", 1],
  rule: [RULE, "mm", 1],
  inch: [TAPE, "in", 1],
  tilt: [TILT, "deg", Math.PI / 180],
  air: [AIR, "kPa", 1],
};

/**
 * One short word for what became of a text: the value, the value offered, the two that are asked
 * about, or nothing.
 */
function outcome(p: Parsed, scale: number): string {
  const round = (v: number): string => String(Math.round((v / scale) * 100) / 100);
  if (p.ok) return `= ${round(p.value)}`;
  if (p.either) return `${round(p.either[0].value)} or ${round(p.either[1].value)}`;
  return p.guess ? `meant ${round(p.guess.value)}` : "no";
}

/** What people type, place by place: text and outcome. */
const TYPED: Record<string, [string, string][]> = {
  tape: [
    ["2871", "= 2871"],
    ["2 871", "= 2871"],
    ["2\u00a0871", "= 2871"],
    ["2\u2009871 mm", "= 2871"],
    ["2871mm", "= 2871"],
    ["2871 MM", "= 2871"],
    ["+2871", "= 2871"],
    ["2871.5", "= 2871.5"],
    ["2871,5", "= 2871.5"],
    ["287.1 cm", "= 2871"],
    ["287,1cm", "= 2871"],
    ["2.871m", "= 2871"],
    ["2,871 m", "= 2871"],
    ["2871 millimetres", "= 2871"],
    ["12 000", "= 12000"],
    ["12 000,5", "= 12000.5"],
    ["1,250", "= 1250"],
    ["12,500", "= 12500"],
    ["1,250.5", "= 1250.5"],
    ["1.250,5", "= 1250.5"],
    ["０２８７１", "= 2871"],
    ["２８７１", "= 2871"],
    ["２８７１．５", "= 2871.5"],
    ["113 1/32 in", "= 2870.99"],
    ['113"', "= 2870.2"],
    ["113”", "= 2870.2"],
    ["113″", "= 2870.2"],
    ["112½ in", "= 2857.5"],
    ['112 ½"', "= 2857.5"],
    ["112¾”", "= 2863.85"],
    ['113 3/8"', "= 2879.73"],
    ['113-3/8"', "= 2879.73"],
    ["9' 5\"", "= 2870.2"],
    ["9’ 5”", "= 2870.2"],
    ["9′ 5″", "= 2870.2"],
    ["9'5", "= 2870.2"],
    ["9 ft 5 in", "= 2870.2"],
    ["9 ft 5 3/8 in", "= 2879.73"],
    ["9 feet 5 inches", "= 2870.2"],
    ["9ft", "= 2743.2"],
    ["2 m 86 cm", "= 2860"],
    ["2 m 860 mm", "= 2860"],
    ["2m 86cm 5mm", "= 2865"],
    ["286 cm 5 mm", "= 2865"],
    ["2m860", "meant 2860"],
    ["2 m 860", "meant 2860"],
    ["2m86", "meant 2860"],
    ["2860 mm 112 5/8 in", "meant 2860"],
    ["1245 mm 1245 mm", "meant 1245"],
    ["2860mm5", "meant 2860.5"],
    ["1.5 m 20", "meant 1500"],
    ["30 mm 2 m", "meant 2030"],
    ["5 in 9 ft", "meant 2870.2"],
    ["9 ft 14 in", "meant 2743.2"],
    ["2 m 3 ft", "meant 2000"],
    ["2.5 m 20 cm", "meant 2500"],
    ["2 m 2 m", "meant 2000"],
    ["2.87", "meant 2870"],
    ["2,87", "meant 2870"],
    ["287", "meant 2870"],
    ["286", "meant 2860"],
    ["2871 m", "meant 2871"],
    ["2871 cm", "meant 2871"],
    ["28.7 m", "meant 728.98"],
    ["0,003", "no"],
    ["0", "no"],
    ["", "no"],
    ["abc", "no"],
    ["12 stone", "no"],
    ["3/0", "no"],
    ["5 deg", "no"],
    ["1 2 3 4", "no"],
    ["2871 2871", "no"],
    ["--2871", "no"],
    ["2871 -", "no"],
    ["2,,871", "no"],
    ["2871 kPa", "no"],
    ["NaN", "no"],
    ["1e3", "no"],
  ],
  rule: [
    ["600", "= 600"],
    ["600.5", "= 600.5"],
    ["-12", "= -12"],
    ["−12", "= -12"],
    ["–12", "= -12"],
    ["－１２", "= -12"],
    ["0", "= 0"],
    ["½ in", "= 12.7"],
    ["3/8 in", "= 9.52"],
    ['23 5/8"', "= 600.07"],
    ["1,250", "1250 or 1.25"],
    ["1,250 mm", "1250 or 1.25"],
    ["2,400", "2400 or 2.4"],
    ["1,5", "= 1.5"],
    ["12,5", "= 12.5"],
    ["3,000", "= 3"],
    ["0,125", "= 0.13"],
    ["-1,250", "= -1.25"],
    ["1,250 cm", "= 12.5"],
    ["5mm3", "meant 5.3"],
    ["60 cm 5", "meant 605"],
    ["2600", "no"],
    ["26 m", "meant 26"],
  ],
  inch: [
    ["113", "= 2870.2"],
    ["113 1/32", "= 2870.99"],
    ["113.5", "= 2882.9"],
    ["2871", "meant 2871"],
    ["2871 mm", "= 2871"],
    ["9' 5", "= 2870.2"],
    ["9.5", "meant 2895.6"],
    ["1,250", "meant 1250"],
  ],
  tilt: [
    ["0.5", "= 0.5"],
    ["0,5", "= 0.5"],
    ["-1.5", "= -1.5"],
    ["1°", "= 1"],
    ["1º", "= 1"],
    ["1˚", "= 1"],
    ["1 deg", "= 1"],
    ["1° 30'", "= 1.5"],
    ["1° 30’", "= 1.5"],
    ["1°30", "= 1.5"],
    ["-1° 30'", "= -1.5"],
    ["90'", "= 1.5"],
    ["90 arcmin", "= 1.5"],
    ["30' 1°", "meant 1.5"],
    ["1° 70'", "meant 1"],
    ["30", "meant 0.5"],
    ["5 mm", "no"],
    ["0.5 in", "no"],
  ],
  air: [
    ["230", "= 230"],
    ["2.3 bar", "= 230"],
    ["2,3bar", "= 230"],
    ["33 psi", "= 227.53"],
    ["230 kPa", "= 230"],
    ["2.3", "meant 230"],
    ["33", "meant 227.53"],
    ["2.3 bar 33 psi", "meant 230"],
    ["230 kPa 2.3 bar", "meant 230"],
    ["2 bar 30", "meant 230"],
    ["230 kPa 12", "meant 230.12"],
    ["5 mm", "no"],
  ],
};

describe.each(Object.entries(TYPED))("at the %s", (place, texts) => {
  const [quantity, unit, scale] = PLACES[place]!;
  it.each(texts)("%j: %s", (text, expected) => {
    expect(outcome(parseQuantity(text, quantity, unit), scale)).toBe(expected);
  });
});

it("the table holds what it promises", () => {
  expect(Object.values(TYPED).flat().length).toBeGreaterThanOrEqual(140);
});

describe("a figure of a document", () => {
  /** One thing typed in each unit there is; every field but those of its kind refuses it. */
  const TYPED_IN: [string, Partial<Record<FigureUnit, number>>][] = [
    ["1 mm", { mm: 1, m: 0.001 }],
    ["1 m", { mm: 1000, m: 1 }],
    ["1 in", { mm: 25.4, m: 0.0254 }],
    ["1 deg", { "°": 1 }],
    ["1°", { "°": 1 }],
    ["1 bar", { kPa: 100 }],
    ["1 l", { l: 1 }],
    ["1 litre", { l: 1 }],
    ["500 ml", { l: 0.5 }],
    ["1 US gal", { l: 3.785412 }],
    ["1 imp gal", { l: 4.54609 }],
    ["1 V", { V: 1 }],
    ["900 mV", { V: 0.9 }],
    ["60 s", { s: 60, min: 1, d: 0.000694 }],
    ["1 min", { s: 60, min: 1, d: 0.000694, "°": 0.016667 }],
    ["2 h", { s: 7200, min: 120, d: 0.083333 }],
    ["1 day", { s: 86_400, min: 1440, d: 1 }],
    ["3 %", { "%": 3 }],
    ["50 km/h", {}],
    ["7", { mm: 7, m: 7, "°": 7, kPa: 7, l: 7, V: 7, s: 7, min: 7, d: 7, "%": 7, "": 7 }],
  ];
  it.each(TYPED_IN)("%j is taken by fields of its own quantity only", (text, taken) => {
    const read = Object.fromEntries(
      (Object.keys(FIGURES) as FigureUnit[])
        .map((unit) => [unit, readFigure(text, unit)] as const)
        .filter(([, r]) => r.ok)
        .map(([unit, r]) => [unit, r.value]),
    );
    expect(read).toEqual(taken);
  });
  it.each([
    ["1 m", "d", "This is a time, not metres; use s, min, h, d."],
    ["5 mm", "", "This is a plain number, not millimetres; type it without a unit."],
    ["1 gal", "l", '"gal" is not a unit known here; use ml, l, US gal, imp gal.'],
  ] as const)("%j in a field of %j says what to do", (text, unit, problem) => {
    expect(readFigure(text, unit)).toMatchObject({ ok: false, problem });
  });
});

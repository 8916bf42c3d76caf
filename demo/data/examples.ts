import type { Instrument } from "@/core/setout";
import { degToRad } from "@/core/units";
import { BOARDS, INSTRUMENTS, STANDS } from "./kit";
import { RULES } from "./rules";
import { SHEETS } from "./sheets";
import { madeUpVin, VEHICLES } from "./vehicles";

/**
 * What a new shop can begin with, as files: a general rule book, typical kit, and one vehicle and
 * one sheet that are examples and say so. Written to public/examples by scripts/schemas.ts.
 */

const GENERAL = "General practice of the trade, to be checked against your source";
const MADE_UP = "Made up for the example; of no maker and no vehicle";
/** Code of an example as it stands on a label: the shop's own begin otherwise. */
const own = (code: string): string => code.replace("HQ-", "EX-");

const STAND_NAMES = ["turns at its rear", "turns about the board", "castors only"];

/** Two instruments that not every shop has; their uncertainties are typical of their kind. */
const MORE: Instrument[] = [
  {
    id: "BL-1",
    name: "Beam lasers, a pair",
    kind: "beam-laser",
    sigmaMm: 1.2,
    sigmaMmPerM: 0.15,
    sigmaRad: degToRad(0.03),
  },
  {
    id: "WM-1",
    name: "Wheel mirrors, a pair",
    kind: "mirror",
    sigmaMm: 1.5,
    sigmaMmPerM: 0.2,
    sigmaRad: degToRad(0.05),
  },
];

const vehicle = VEHICLES.find((v) => v.id === "norvane-lisse")!;
const sheet = SHEETS.find((s) => s.id === "lisse-forward")!;
const EXAMPLE_VIN_START = "0EXMPL2";
/** A VIN of the example vehicle with a true check figure. */
export const EXAMPLE_VIN = madeUpVin("0EXMPL2A7R100001");

export const EXAMPLES: Record<string, unknown> = {
  "rule-book": {
    ...RULES,
    rules: RULES.rules.map((r) => ({ ...r, source: GENERAL })),
    efforts: RULES.efforts.map((e) => ({ ...e, boards: e.boards.map(own) })),
  },
  kit: {
    format: "iridel.kit/1",
    stands: STANDS.map((s, i) => ({ ...s, name: `Example: ${STAND_NAMES[i]}; measure yours` })),
    // Nobody has checked them here: until somebody does they are believed less.
    instruments: [...INSTRUMENTS, ...MORE].map((i) => ({ ...i, checkedOn: null, everyDays: 180 })),
    boards: BOARDS.filter((b) => b.condition !== "out of use").map(({ lentTo: _, ...b }) => ({
      ...b,
      code: own(b.code),
      condition: "good",
    })),
  },
  vehicle: {
    ...vehicle,
    id: "example-hatch",
    make: "Example",
    model: "Hatch",
    variant: "made up, for trying the bench",
    vinStart: EXAMPLE_VIN_START,
    glass: { ...vehicle.glass, makerPart: "EX-W-1", equivalentParts: ["EX-E-1"] },
    source: MADE_UP,
    version: 1,
    checked: { enteredBy: "Iridel", checkedBy: "nobody: made up", checkedOn: "2026-11-28" },
  },
  sheet: {
    ...sheet,
    id: "example-forward",
    version: 1,
    title: "EXAMPLE, forward camera, static",
    source: {
      name: MADE_UP,
      date: "2026-11-28",
      enteredBy: "Iridel",
      checkedBy: "nobody: made up",
      checkedOn: "2026-11-28",
    },
    appliesTo: { ...sheet.appliesTo, vehicles: ["example-hatch"] },
    setups: sheet.setups.map((s) => ({
      ...s,
      targets: s.targets.map((t) => ({ ...t, object: { ...t.object, code: own(t.object.code) } })),
    })),
  },
};

import {
  degToRad,
  formatNumber,
  formatQuantity,
  parseQuantity,
  splitPair,
  radToDeg,
  type Parsed,
  type UnitId,
} from "@/core/units";
import { wantedRail, wantedTilt, type SetOutPlan } from "./plan";
import type { Instrument } from "./instrument";
import { asIs, type Slot } from "./slot";
import { endWord, sideWord, thingOf, waysOf, type Thing } from "./thing";

const TILT = { dimension: "angle", min: degToRad(-8), max: degToRad(8) } as const;
/** Beyond this many divisions a bubble lies at the end of its tube and says nothing. */
const BUBBLE_END = 5;

/** What height and tilt of the board are read with: rule and scale, inclinometer, bubbles. */
export function levelSlots(plan: SetOutPlan): Slot[] {
  const { target, stand, instruments } = plan;
  const { thing } = thingOf(target);
  const has = (kind: Instrument["kind"]): boolean => instruments.some((i) => i.kind === kind);
  const height = {
    dimension: "length",
    min: 200,
    max: 3000,
    expected: target.placement.heightMm,
  } as const;
  const slots: Slot[] = [];
  if (has("rule"))
    slots.push({
      id: "height-rule",
      name: `${thing} centre above floor`,
      short: "rule",
      act: `Rule from the floor up to the centre of the ${thing}.`,
      hint: "A height laser misreads a glossy floor: lay a card under it.",
      instrument: "rule",
      quantity: { name: `the height of the ${thing} centre`, ...height },
      seconds: 20,
      observes: { in: "height" },
      ...asIs,
    });
  if (has("scale"))
    slots.push({
      id: "height-scale",
      name: "height scale on the stand",
      short: "scale",
      act: "Read the height scale on the stand.",
      hint: "Read it at eye level.",
      instrument: "scale",
      quantity: {
        name: "the stand's height scale",
        ...height,
        expected: height.expected - stand.scaleOffsetMm,
      },
      seconds: 10,
      observes: { in: "height" },
      toModel: (shown) => shown + stand.scaleOffsetMm,
      toShown: (model) => model - stand.scaleOffsetMm,
    });
  // Whether the sheet limits it or not: a stand that leans holds its board elsewhere than its hooks.
  const tilts = tiltsOf(thingOf(target));
  slots.push(...tiltSlots(plan, tilts.pitch), ...tiltSlots(plan, tilts.roll));
  if (has("rule")) slots.push(endsSlot(plan));
  return slots;
}

/** How the floor falls from one end of the beam to the other, beside what was measured of it. */
const FLOOR_FALL = "fall of the floor under the beam";
/** Two spots of a floor under the ends of a beam, beside the plane through them, mm. */
const UNEVEN_MM = 1;
/** More than this one end does not stand above the other, mm. */
const MOST_APART_MM = 200;

/**
 * A rule from the floor to the beam at both its ends: how much higher one end is says how the beam
 * lies to the floor, and the measured floor says how that lies to gravity. What is not known of the
 * floor is common to every repeat.
 */
function endsSlot(plan: SetOutPlan): Slot {
  const apartMm = 2 * plan.stand.beamHalfMm;
  const { beam } = thingOf(plan.target);
  const floor = wantedTilt({ ...plan, target: { ...plan.target, upright: "vehicle-plane" } }).roll;
  const rad = 1 / apartMm;
  const { first, sides, told, beside } = endsOf(thingOf(plan.target));
  return {
    id: "ends-roll",
    name: `height of the ${beam}’s two ends`,
    short: "ends",
    act: `Rule from the floor up to the ${beam} at both ends: enter both, ${first} first, or how much higher one end is.`,
    instrument: "rule",
    quantity: {
      name: `how much higher one end of the ${beam} is`,
      dimension: "angle",
      min: -MOST_APART_MM * rad,
      max: MOST_APART_MM * rad,
    },
    seconds: 30,
    step: { rad, unit: "mm", most: MOST_APART_MM },
    sides,
    against: { id: FLOOR_FALL, sigma: Math.hypot(floor.sigma, Math.SQRT2 * UNEVEN_MM * rad) },
    observes: { in: "roll" },
    toModel: (shown) => told(shown) + floor.value,
    toShown: (model) => told(model - floor.value),
    ...(beside ? { toAndFro: true } : {}),
  };
}

/** Which end of a beam is told first, and how a difference from it to the other is reckoned in. */
const endsOf = ({ stands }: Thing) => {
  const { ends } = waysOf(stands);
  // People name vehicle left first, and the front; the arithmetic the end to the board's own right.
  const turned = stands === "behind" || stands === "left";
  const [first, other] = turned ? [ends[1], ends[0]] : ends;
  return {
    first: sideWord(first),
    sides: { positive: `${endWord(first)} end high`, negative: `${endWord(other)} end high` },
    told: (v: number): number => (turned ? 0 - v : v),
    beside: stands === "left" || stands === "right",
  };
};

/** Where a board hangs on the rail of a beam that carries several, by the rail's own scale. */
export function railSlot({ target }: SetOutPlan): Slot {
  const wanted = wantedRail(target);
  return {
    id: "rail-scale",
    name: `rail scale at ${target.name}`,
    short: "rail",
    act: `Read on the rail of the beam where ${target.name} hangs, from the beam’s middle.`,
    instrument: "scale",
    quantity: {
      name: `the rail scale at ${target.name}`,
      dimension: "length",
      min: wanted - 400,
      max: wanted + 400,
      expected: wanted,
    },
    seconds: 10,
    sides: { positive: "vehicle left", negative: "vehicle right" },
    observes: { in: "rail" },
    ...asIs,
  };
}

type Tilt = {
  part: "pitch" | "roll";
  inclinometer: Pick<Slot, "name" | "short" | "act">;
  bubble: Pick<Slot, "name" | "short" | "act">;
  /** What the board does, and where the bubble then runs: to the high side. */
  sides: NonNullable<Slot["sides"]>;
  bubbleSides: NonNullable<Slot["sides"]>;
  more: Pick<Slot, "toAndFro"> & Partial<Pick<Slot, "toModel" | "toShown">>;
};

/** The two tilts, of whatever hangs there on whatever it hangs. */
function tiltsOf(of: Thing): Record<"pitch" | "roll", Tilt> {
  const { thing, beam } = of;
  const { sides, told, beside } = endsOf(of);
  return {
    pitch: {
      part: "pitch",
      inclinometer: {
        name: `${thing} lean, front to back`,
        short: "lean",
        act: `Hold the inclinometer upright on the face of the ${thing}.`,
      },
      bubble: {
        name: "bubble along the base",
        short: "bubble ↕",
        act: "Read the bubble that lies along the base, in divisions; + is toward the car.",
      },
      sides: { positive: "top away from the car", negative: "top toward the car" },
      bubbleSides: { positive: "toward the car", negative: "away from the car" },
      more: { toAndFro: true },
    },
    roll: {
      part: "roll",
      inclinometer: {
        name: `${beam} level, side to side`,
        short: "level",
        act: `Lay the inclinometer along the ${beam}.`,
      },
      bubble: {
        name: `bubble along the ${beam}`,
        short: "bubble ↔",
        act: `Read the bubble on the ${beam}, in divisions from the middle.`,
      },
      sides,
      bubbleSides: beside
        ? { positive: "toward its front end", negative: "toward its rear end" }
        : { positive: "toward vehicle left", negative: "toward vehicle right" },
      more: { ...(beside ? { toAndFro: true } : {}), toModel: told, toShown: told },
    },
  };
}

/** One tilt of the board, by each instrument that reads it. */
function tiltSlots(
  plan: SetOutPlan,
  { part, inclinometer, bubble, sides, bubbleSides, more }: Tilt,
): Slot[] {
  const { thing, beam } = thingOf(plan.target);
  const common = { ...tiltHint(plan, part, sides), observes: { in: part }, ...asIs, ...more };
  return [
    ...kindOf(plan, "inclinometer").map((): Slot => ({
      id: `tilt-${part}`,
      ...inclinometer,
      ...common,
      instrument: "inclinometer",
      quantity: {
        name: part === "pitch" ? `the lean of the ${thing}` : `the level of the ${beam}`,
        ...TILT,
      },
      seconds: 15,
      sides,
    })),
    ...kindOf(plan, "bubble").map(({ divisionRad }): Slot => ({
      id: `bubble-${part}`,
      ...bubble,
      ...common,
      instrument: "bubble",
      quantity: {
        name: "the bubble",
        dimension: "angle",
        min: -BUBBLE_END * divisionRad!,
        max: BUBBLE_END * divisionRad!,
      },
      seconds: 12,
      step: { rad: divisionRad!, unit: "div", most: BUBBLE_END },
      sides: bubbleSides,
    })),
  ];
}

const kindOf = (plan: SetOutPlan, kind: Instrument["kind"]): Instrument[] =>
  plan.instruments.filter((i) => i.kind === kind).slice(0, 1);

/**
 * Where the board is to stand square to the vehicle's plane: the tilt that is right, or that nobody
 * knows it yet.
 */
function tiltHint(
  plan: SetOutPlan,
  part: "pitch" | "roll",
  { positive, negative }: NonNullable<Slot["sides"]>,
): { hint?: string } {
  if (plan.target.upright !== "vehicle-plane") return {};
  if (!plan.floorSlopeRad)
    return {
      hint: "The board stands square to the vehicle’s plane: measure the floor under Ready, or nobody knows what is right.",
    };
  const { value } = wantedTilt(plan)[part];
  const { told } = endsOf(thingOf(plan.target));
  const shown = part === "roll" ? told(value) : value;
  return {
    hint: `Square to the vehicle’s plane it is ${formatQuantity(Math.abs(value), "deg")} ${shown >= 0 ? positive : negative}.`,
  };
}

/** The unit a slot's figures are typed and shown in. */
const unitOf = (slot: Pick<Slot, "quantity">, lengths: "mm" | "in"): UnitId =>
  slot.quantity.dimension === "angle" ? "deg" : lengths;

/** What stands behind a slot's figure: mm, in, °, div. */
export const slotUnit = (slot: Pick<Slot, "quantity" | "step">, lengths: "mm" | "in"): string =>
  slot.step?.unit === "div"
    ? "div"
    : slot.quantity.dimension === "angle" && !slot.step
      ? "°"
      : lengths;

/**
 * What the two sides of a signed reading are called on a key: a side of the vehicle by its letter,
 * to and fro by a sign.
 */
export const sideKeys = (slot: Pick<Slot, "toAndFro">): ["L", "R"] | ["+", "−"] =>
  slot.toAndFro ? ["+", "−"] : ["L", "R"];

/**
 * A signed figure as it is written down: "12 L", "−12". @param side 1 or -1; 0 leaves the figure
 * alone
 */
export function typedFigure(
  slot: Pick<Slot, "sides" | "toAndFro">,
  figure: string,
  side: 1 | -1 | 0,
): string {
  if (!slot.sides || side === 0) return figure;
  const key = sideKeys(slot)[side > 0 ? 0 : 1];
  return key === "L" || key === "R" ? `${figure} ${key}` : `${key}${figure}`;
}

/** A figure as an instrument would show it, without unit or side. */
export function plainFigure(
  slot: Pick<Slot, "quantity" | "step">,
  size: number,
  lengths: "mm" | "in",
): string {
  if (slot.step?.unit === "div") return (size / slot.step.rad).toFixed(1);
  if (slot.step) return plainLength(size / slot.step.rad, lengths);
  if (slot.quantity.dimension === "angle") return radToDeg(size).toFixed(2);
  return plainLength(size, lengths);
}

const plainLength = (mm: number, lengths: "mm" | "in"): string =>
  lengths === "in" ? (mm / 25.4).toFixed(2) : mm.toFixed(0);

/** How high an end of a beam may be, mm. */
const END_OF_BEAM = {
  name: "the height of an end of the beam",
  dimension: "length",
  min: 50,
  max: 3500,
} as const;

/**
 * Two heights, of the beam's vehicle-left end first, as how much higher that one is, in radians; null
 * where the text is no such pair, or the slot no such slot.
 */
export function endsApart(
  text: string,
  { step }: Pick<Slot, "step">,
  lengths: "mm" | "in",
): number | null {
  if (step?.unit !== "mm") return null;
  const height = (part: string): number | null => {
    const parsed = parseQuantity(part, END_OF_BEAM, lengths);
    return parsed.ok ? parsed.value : null;
  };
  const both = splitPair(text.trim(), [height, height]);
  const apart = both && both.values[0] - both.values[1];
  return apart !== null && Math.abs(apart) <= step.most ? apart * step.rad : null;
}

/**
 * Reads a typed figure as this slot's quantity: lengths and angles with their units, bubbles in
 * divisions.
 */
export function parseShown(
  text: string,
  slot: Pick<Slot, "quantity" | "step">,
  lengths: "mm" | "in",
): Parsed {
  const { quantity, step } = slot;
  if (step?.unit === "mm") {
    const { name } = quantity;
    const apart = { name, dimension: "length", min: -step.most, max: step.most } as const;
    const mm = parseQuantity(text, apart, lengths);
    return mm.ok ? { ...mm, value: mm.value * step.rad } : mm;
  }
  if (!step) return parseQuantity(text, slot.quantity, unitOf(slot, lengths));
  const figure = text
    .trim()
    .replace(/\s*(div|divisions?)$/i, "")
    .replace(",", ".");
  const divisions = /^[+\-−]?\d*\.?\d+$/.test(figure) ? Number(figure.replace("−", "-")) : NaN;
  if (Number.isNaN(divisions))
    return {
      ok: false,
      problem: `"${text.trim()}" is not a number of divisions; type one such as 1.5.`,
    };
  if (Math.abs(divisions) > BUBBLE_END)
    return {
      ok: false,
      problem: `The bubble has ${BUBBLE_END} divisions to each side, not ${formatNumber(Math.abs(divisions), 1)}. At the end of its tube it says nothing: level roughly first.`,
    };
  return { ok: true, value: divisions * step.rad, unit: "deg" };
}

import { degToRad } from "@/core/units";
import type { Target } from "@/core/sheet";
import type { LastActId } from "./last-act-ids";
import type { Move } from "./moves";

/** What may have shifted since the last reading, as the technician says it. */
export type TouchKind = "cranked" | "knocked" | "moved-car" | LastActId;

/**
 * Standard deviations a disturbance adds to what was known. Zero leaves that quantity, and its
 * readings, alone.
 */
export type Widening = { planMm: number; headingRad: number; heightMm: number; tiltRad: number };

/** How each touch is put to the technician, and what it puts in doubt. */
export const TOUCHES: Record<TouchKind, { name: string; widening: Widening }> = {
  cranked: {
    name: "Cranked the height",
    widening: { planMm: 4, headingRad: degToRad(0.15), heightMm: 20, tiltRad: 0 },
  },
  hung: {
    name: "Hung or changed the board",
    widening: { planMm: 3, headingRad: degToRad(0.12), heightMm: 2, tiltRad: degToRad(0.1) },
  },
  locked: {
    name: "Locked the castors",
    widening: { planMm: 1.2, headingRad: degToRad(0.05), heightMm: 0.3, tiltRad: degToRad(0.02) },
  },
  "feet-down": {
    name: "Screwed the feet down",
    widening: { planMm: 1, headingRad: degToRad(0.04), heightMm: 1.5, tiltRad: degToRad(0.1) },
  },
  "laser-off": {
    name: "Took the laser off",
    widening: { planMm: 0.6, headingRad: degToRad(0.03), heightMm: 0.3, tiltRad: degToRad(0.02) },
  },
  tethered: {
    name: "Hooked the tether on",
    widening: { planMm: 0.8, headingRad: degToRad(0.04), heightMm: 0.3, tiltRad: degToRad(0.02) },
  },
  covered: {
    name: "Took the covers off",
    widening: { planMm: 0.8, headingRad: degToRad(0.04), heightMm: 0.3, tiltRad: degToRad(0.03) },
  },
  knocked: {
    name: "Knocked or leaned on it",
    widening: { planMm: 30, headingRad: degToRad(1), heightMm: 2, tiltRad: degToRad(0.3) },
  },
  "moved-car": {
    name: "Moved the car",
    widening: { planMm: 60, headingRad: degToRad(1.5), heightMm: 0, tiltRad: 0 },
  },
};

/** What is left of an adjuster's play when it was taken up by hand as told: a fifth of it. */
const left = (move: { playMm?: number | undefined }): number => 0.2 * (move.playMm ?? 0);

/** How far from a figure a hand stops that watches it on a scale, with what the scale is read to. */
export const WATCHED_MM = 1.6;

/**
 * How far a move may end from where it was meant to: hands, backlash, castors. Base parts are what
 * the act itself disturbs; the shares are of the size of the move.
 */
export function moveWidening(move: Move): Widening {
  switch (move.kind) {
    case "roll": {
      const far = Math.hypot(move.awayMm, move.leftMm);
      return {
        planMm: 5 + 0.05 * far,
        headingRad: degToRad(0.2) + 0.05 * Math.abs(move.turnRad),
        heightMm: 2,
        tiltRad: degToRad(0.2),
      };
    }
    case "level":
      return {
        planMm: 1.5,
        headingRad: degToRad(0.05),
        heightMm: 0.5 + 0.1 * Math.abs(move.raiseMm),
        tiltRad: degToRad(0.05),
      };
    case "yaw":
      return {
        planMm: 0.8 + left(move),
        headingRad: degToRad(0.025) + 0.015 * Math.abs(move.turnRad) + left(move) / 1000,
        heightMm: 0,
        tiltRad: 0,
      };
    case "slide":
      return {
        planMm: 0.6 + 0.015 * Math.abs(move.byMm) + left(move),
        headingRad: degToRad(0.02),
        heightMm: 0,
        tiltRad: 0,
      };
    case "crank":
      return {
        planMm: 1,
        headingRad: degToRad(0.03),
        heightMm: move.until ? WATCHED_MM : 1 + 0.03 * Math.abs(move.upMm) + left(move),
        tiltRad: 0,
      };
    // The mast was lifted off and set down again: about what rolling the stand a hand's breadth
    // does.
    // How far it was from its marks nobody says.
    case "zero":
      return { planMm: 60, headingRad: degToRad(1), heightMm: 0, tiltRad: 0 };
    case "booster":
      return { planMm: 8, headingRad: degToRad(0.4), heightMm: 4, tiltRad: degToRad(0.3) };
    // A board that slides on its rail leaves the beam where it is, to a few tenths of a millimetre.
    case "rail":
      return { planMm: 0, headingRad: 0, heightMm: 0, tiltRad: 0 };
    // A mat of several metres follows the hand with folds and friction.
    case "draw":
      // A cross is struck with a square and a pencil.
      if (move.end === "mark")
        return {
          planMm: 1.5 + 0.01 * Math.hypot(move.aheadMm, move.leftMm),
          // It has none; not nothing, so that the arithmetic keeps its footing.
          headingRad: 1e-5,
          heightMm: 0,
          tiltRad: 0,
        };
      return {
        planMm: 4 + 0.08 * Math.hypot(move.aheadMm, move.leftMm),
        headingRad: degToRad(0.1) + 0.08 * Math.abs(move.turnRad),
        heightMm: 0,
        tiltRad: 0,
      };
  }
}

/** How surely a board hangs where the rail scale had it, after somebody has touched it, mm. */
export const RAIL_LOOSE: Record<TouchKind, number> = {
  cranked: 0,
  hung: 5,
  locked: 0,
  "feet-down": 0,
  "laser-off": 0,
  tethered: 0,
  covered: 1,
  knocked: 2,
  "moved-car": 0,
};

/** How far a slide along the rail may end from where it was told to, mm. */
export const railWidening = (move: Move): number =>
  move.kind === "rail" ? 1 + 0.05 * Math.abs(move.leftMm) : 0;

/** What a target of this kind may have suffered: a mat is neither cranked nor hung. */
export const touchesOf = (kind: Target["kind"]): TouchKind[] =>
  kind === "mark"
    ? ["moved-car"]
    : kind === "mat"
      ? ["knocked", "moved-car"]
      : ["cranked", "hung", "knocked", "moved-car"];

/** Whether a target of this kind can suffer it at all: the last acts are of boards. */
export const suffers = (kind: Target["kind"], touch: TouchKind): boolean =>
  kind === "board" || touchesOf(kind).includes(touch);

/** How a touch is called to the people at this kind of target. */
export const touchName = (kind: Target["kind"], touch: TouchKind): string =>
  kind === "mat" && touch === "knocked" ? "Stepped on it or caught a corner" : TOUCHES[touch].name;

import type { Reading } from "@/core/survey";
import type { Quantity } from "@/core/units";
import type { Seat } from "./causes";
import type { Instrument } from "./instrument";
import type { ReadWall } from "./walls";

/** Quantities that do not lie in the floor plan; each is a single number with its own readings. */
export type ScalarId = "height" | "pitch" | "roll" | "rail";

/**
 * A reading the technician can take: what to hold where, what it observes, how long it takes.
 *
 * `toModel` turns the number on the instrument into the number the network wants (a slant tape into
 * its plan length, a scale figure into a height); `toShown` is its inverse.
 */
export type Slot = {
  id: string;
  /** Short name for lists and the slip: "front hub left → beam end left". */
  name: string;
  /** A few letters for tight places: "FL → L". */
  short: string;
  /** The act, as one sentence without the number. */
  act: string;
  instrument: Instrument["kind"];
  /** What spoils this reading on some floors or cars, and how to keep it from doing so. */
  hint?: string;
  quantity: Quantity;
  /** Typing and walking, seconds: what the reading costs. */
  seconds: number;
  /** What a beam travels, metres, where that is not the figure itself. */
  throwM?: number;
  /** What it goes through that was clamped or hung, and stays as it sits for every repeat. */
  seat?: Seat;
  /**
   * The figure is told in steps of this angle, radians: divisions of a bubble, or millimetres by which
   * one end stands higher than the other. It is still an angle inside.
   */
  step?: { rad: number; unit: "div" | "mm"; most: number };
  /** What an angle is read against is not known exactly either, and the same for every repeat. */
  against?: Against;
  /** For a signed reading: what positive and negative mean. */
  sides?: { positive: string; negative: string };
  /** Another reading by the same act: where a way walks that one, it walks this one. */
  like?: string;
  /** The other target it runs to, or the bay; without it nothing can be read. */
  mate?: string;
  /** The wall of the bay it runs to. */
  wall?: ReadWall;
  /** It is of the vehicle's own place in the bay: what carries the target has no part in it. */
  ofVehicle?: true;
  /** How rough what it is read at is, from place to place, mm. */
  roughMm?: number;
  /**
   * Its sides are not those of the vehicle: away and toward, which wear a sign instead of a letter.
   */
  toAndFro?: true;
  /**
   * Of the plan: the reading in the network, `body` being the carrier's body when it was taken, and
   * `mate` that of the other target's carrier.
   */
  observes:
    | {
        in: "plan";
        observation: (
          id: string,
          value: number,
          sigma: number,
          body: string,
          mate?: string,
        ) => Reading;
      }
    | { in: ScalarId };
  toModel: (shown: number) => number;
  toShown: (model: number) => number;
};

/** What a lean is read against, where that is not gravity: a cause, with what is known of it. */
export type Against = { id: string; sigma: number };

/** The instrument shows what the network wants. */
export const asIs = { toModel: (v: number): number => v, toShown: (v: number): number => v };

/** Counted the other way round than the network counts. */
export const flipped = { toModel: (v: number): number => -v, toShown: (v: number): number => -v };

type Measured = Extract<Reading, { valueMm: number }>;
/** A reading of the network without its name, its figure and its uncertainty. */
type Geometry = Measured extends infer R
  ? R extends Measured
    ? Omit<R, "id" | "sigma" | "valueMm">
    : never
  : never;

/** A reading in the plan: `of` names the points it is taken of, the carrier's own by its body. */
export const inPlan = (of: (body: string, mate: string) => Geometry): Slot["observes"] => ({
  in: "plan",
  // `of` makes a new one each time: filling it in costs a fraction of copying it.
  observation: (id, valueMm, sigma, body, mate = "") =>
    Object.assign(of(body, mate), { id, valueMm, sigma }),
});

import { formatLength, formatNumber, formatQuantity, radToDeg } from "@/core/units";
import type { Vehicle } from "@/core/vehicle";
import type { Adjuster, Move } from "./moves";
import type { Slot } from "./slot";
import { onFloor } from "./on-floor";
import { endWord, WAYS_AHEAD, waysOf, type Thing } from "./thing";

declare module "./on-floor" {
  interface FloorParts {
    drawWords: (move: DrawMove, mm: (v: number) => string) => MoveWords;
  }
}
type DrawMove = Extract<Move, { kind: "draw" }>;

export type LengthSetting = "mm" | "in";

/** One act in words: the sentence, and the one figure that is set large. */
export type MoveWords = { say: string; figure: string; detail: string };

type Side = "left" | "right";
const sideOf = (leftMm: number): Side => (leftMm >= 0 ? "left" : "right");
const wayOf = (ways: readonly [string, string], mm: number): string => ways[mm >= 0 ? 0 : 1];

/** Which side that is for the person in the seat: "Vehicle left is the driver’s side." */
const sideNote = (side: Side, vehicle: Pick<Vehicle, "driverSide">): string =>
  `Vehicle ${side} is the ${side === vehicle.driverSide ? "driver’s" : "passenger"} side.`;

/** How to end a move of an adjuster that turns over before anything follows. */
const playNote = (
  { playMm }: { playMm?: number | undefined },
  mm: (v: number) => string,
): string =>
  playMm ? ` It has ${mm(playMm)} of play: go past it by twice that and come back.` : "";

/** A move as one plain sentence with its number. */
export function moveWords(
  move: Move,
  vehicle: Pick<Vehicle, "driverSide">,
  setting: LengthSetting = "mm",
  { thing, beam, stands }: Thing = { thing: "board", beam: "beam", stands: "ahead" },
): MoveWords {
  const { x, y, ends } = waysOf(stands);
  const beside = stands === "left" || stands === "right";
  const mm = (v: number): string => formatLength(Math.abs(v), setting);
  const deg = (rad: number): string => formatQuantity(Math.abs(rad), "deg");
  const turns = (t: number): string => `${formatNumber(Math.abs(t), 1)} turns`;
  switch (move.kind) {
    case "roll": {
      const parts = [
        Math.abs(move.awayMm) >= 0.5 ? `${mm(move.awayMm)} ${wayOf(x, move.awayMm)}` : "",
        Math.abs(move.leftMm) >= 0.5 ? `${mm(move.leftMm)} ${wayOf(y, move.leftMm)}` : "",
      ].filter(Boolean);
      const turn =
        Math.abs(move.turnRad) >= 1e-4
          ? `turn it ${deg(move.turnRad)} ${move.turnRad > 0 ? "counter-clockwise" : "clockwise"} seen from above`
          : "";
      const say =
        parts.length > 0
          ? `Roll the stand ${parts.join(" and ")}${turn ? `, then ${turn}` : ""}.`
          : `${turn.charAt(0).toUpperCase()}${turn.slice(1)}.`.replace("Turn it", "Turn the stand");
      const larger = Math.abs(move.awayMm) >= Math.abs(move.leftMm) ? move.awayMm : move.leftMm;
      return {
        say,
        figure: parts.length > 0 ? mm(larger) : deg(move.turnRad),
        detail: beside ? "" : sideNote("left", vehicle),
      };
    }
    case "level":
      return {
        say: `Screw foot ${move.foot + 1} ${move.raiseMm >= 0 ? "out" : "in"} by ${turns(move.turns)}.`,
        figure: turns(move.turns),
        detail: `${formatNumber(Math.abs(move.raiseMm), 1)} mm ${move.raiseMm >= 0 ? "higher" : "lower"} at that foot. Leave foot 1 alone.`,
      };
    case "yaw":
      return {
        say: `Turn the ${beam} until its ${endWord(ends[0])} end has come ${mm(move.leftEndMm)} ${wayOf(WAYS_AHEAD.x, move.leftEndMm)}.`,
        figure: mm(move.leftEndMm),
        detail: `That is ${deg(move.turnRad)} ${move.turnRad > 0 ? "counter-clockwise" : "clockwise"} seen from above.${beside ? "" : ` ${sideNote("left", vehicle)}`}${playNote(move, mm)}`,
      };
    case "slide":
      return move.axis === "cross"
        ? {
            say: `Slide the ${thing} ${mm(move.byMm)} ${beside ? wayOf(x, move.awayMm) : wayOf(y, move.leftMm)}.`,
            figure: mm(move.byMm),
            detail: `Cross slide.${beside ? "" : ` ${sideNote(sideOf(move.leftMm), vehicle)}`}${playNote(move, mm)}`,
          }
        : {
            say: `Slide the ${thing} ${mm(move.byMm)} ${beside ? wayOf(y, move.leftMm) : wayOf(x, move.awayMm)}.`,
            figure: mm(move.byMm),
            detail: `Fore-and-aft slide.${playNote(move, mm)}`,
          };
    case "crank":
      if (move.until) {
        const { ended } = move.until;
        const watched = ended === undefined ? "" : `: watched, it showed ${mm(ended)}`;
        return {
          say: `Crank the ${thing} until the stand’s scale shows ${mm(move.until.shown)}${watched}.`,
          figure: mm(move.until.shown),
          detail: `Come to it from below: the screw’s play then lies on one side.${Math.abs(move.upMm) < 1 ? "" : ` About ${mm(move.upMm)} ${move.upMm >= 0 ? "up" : "down"}.`}`,
        };
      }
      return {
        say: `Crank the ${thing} ${mm(move.upMm)} ${move.upMm >= 0 ? "up" : "down"}.`,
        figure: mm(move.upMm),
        // A screw has play: ended from below, the weight of the board always takes it up on the
        // same side.
        detail: `${turns(move.turns)} of the crank.${move.upMm < 0 ? ` Go ${move.playMm ? `${mm(2 * move.playMm)} or so` : "one turn"} lower and come back up: the screw’s play then lies below.` : ""}`,
      };
    case "rail":
      return {
        say: `Slide this board ${mm(move.leftMm)} along the rail toward vehicle ${sideOf(move.leftMm)}.`,
        figure: mm(move.leftMm),
        detail: `Leave the beam alone. ${sideNote(sideOf(move.leftMm), vehicle)}`,
      };
    case "zero":
      return {
        say: `Put the adjusters at their marks: ${marksOf(move.adjusters)}.`,
        figure: "0",
        detail: "All moves are reckoned from there.",
      };
    case "draw":
      return onFloor().drawWords(move, mm);
    case "booster":
      return {
        say: move.booster
          ? `Set booster ${move.booster} under the mast.`
          : "Take the booster out from under the mast.",
        figure: move.booster ?? "off",
        detail: `The board then stands about ${mm(move.upMm)} ${move.upMm >= 0 ? "higher" : "lower"}, and the scale is counted accordingly. If it is so already, say done.`,
      };
  }
}

/** The act of a reading as it is told: first what it goes through is seated anew, where that is asked. */
export function actOf({ slot, anew }: { slot: Slot; anew: boolean }, act = slot.act): string {
  if (!anew || !slot.seat) return act;
  return `Take off ${slot.seat.name} and seat it anew. ${act}`;
}

const marksOf = (adjusters: readonly Adjuster[]): string => {
  const slides = adjusters.filter((a) => a !== "turn");
  return [
    ...(adjusters.includes("turn") ? ["turn at zero"] : []),
    ...(slides.length > 0 ? [`${slides.join(" and ")} slide centred`] : []),
  ].join(", ");
};

/**
 * A slot's value for reading: lengths in the user's setting, tilts in degrees, sides spelled out.
 */
export function slotValue(slot: Slot, shown: number, setting: LengthSetting = "mm"): string {
  const size = slot.sides ? Math.abs(shown) : shown;
  const figure = slot.step
    ? slot.step.unit === "mm"
      ? formatLength(size / slot.step.rad, setting)
      : `${formatNumber(size / slot.step.rad, 1)}\u00a0div`
    : slot.quantity.dimension === "angle"
      ? formatQuantity(size, "deg")
      : formatLength(size, setting);
  if (!slot.sides || radToDeg(size) === 0) return figure;
  return `${figure} ${shown >= 0 ? slot.sides.positive : slot.sides.negative}`;
}

import type { Move } from "./moves";
import type { MoveWords } from "./words";

/** A mat is told by its end and by the car: nobody has to think of axes on the floor. */
export function drawWords(
  move: Extract<Move, { kind: "draw" }>,
  mm: (v: number) => string,
): MoveWords {
  if (move.end === "mark") {
    const parts = [
      Math.abs(move.aheadMm) >= 0.5
        ? `${mm(move.aheadMm)} ${move.aheadMm > 0 ? "forward" : "back"}`
        : "",
      Math.abs(move.leftMm) >= 0.5
        ? `${mm(move.leftMm)} toward vehicle ${move.leftMm >= 0 ? "left" : "right"}`
        : "",
    ].filter(Boolean);
    return {
      say: `Draw the mark anew ${parts.join(" and ")}.`,
      figure: mm(Math.abs(move.aheadMm) > Math.abs(move.leftMm) ? move.aheadMm : move.leftMm),
      detail: "Forward is along the hubs’ line. Wipe the old cross away: two crosses are none.",
    };
  }
  if (move.end === "left" || move.end === "right")
    return {
      say: `Draw the mat’s ${move.end} end ${mm(move.aheadMm)} ${move.aheadMm >= 0 ? "forward" : "back"}.`,
      figure: mm(move.aheadMm),
      detail: `Forward is the way the vehicle faces. Let the ${move.end === "left" ? "right" : "left"} end lie still. Keep it flat: a fold shortens it.`,
    };
  if (move.end === "whole" && Math.abs(move.leftMm) > Math.abs(move.aheadMm))
    return {
      say: `Draw the whole mat ${mm(move.leftMm)} toward vehicle ${move.leftMm >= 0 ? "left" : "right"}, along its own edge.`,
      figure: mm(move.leftMm),
      detail: "Keep it flat: a fold shortens it.",
    };
  if (move.end === "whole") {
    const way = move.aheadMm >= 0 ? "forward" : "back";
    return {
      say: `Draw the whole mat ${mm(move.aheadMm)} ${way}, along its own edge.`,
      figure: mm(move.aheadMm),
      detail: "Forward is the way the vehicle faces. Keep it flat: a fold shortens it.",
    };
  }
  // Where it lies says which way the car is: toward the middle from either side.
  const toward = move.after.pose.yMm * move.leftMm < 0;
  const still = move.end === "front" ? "rear" : "front";
  return {
    say: `Draw the mat’s ${move.end} end ${mm(move.leftMm)} ${toward ? "toward" : "away from"} the car.`,
    figure: mm(move.leftMm),
    detail: `Let the ${still} end lie still. Keep it flat: a fold shortens it.`,
  };
}

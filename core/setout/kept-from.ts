import { isByHand } from "./hands";
import type { Kept, KeptNumber } from "./kept";
import type { SetOutSolution } from "./solve";

/**
 * What a solved set-out leaves to the next car. Null where nothing solves, where a booster is under
 * the mast, and for what lies on the floor or hangs on a beam with others.
 */
export function keptFrom(s: SetOutSolution): Kept | null {
  const { target, stand } = s.plan;
  if (!s.boardCovariance || isByHand(target) || target.beam || stand.fitted) return null;
  const { xMm, yMm, headingRad } = s.board.pose;
  const number = (of: "height" | "pitch" | "roll"): KeptNumber => ({
    value: s.scalars[of].value,
    sigma: Math.sqrt(s.scalars[of].variance),
  });
  return {
    pose: { xMm, yMm, headingRad },
    covariance: s.boardCovariance,
    height: number("height"),
    pitch: number("pitch"),
    roll: number("roll"),
    adjusters: [...s.standState.joints],
    finished: (stand.lastActs ?? []).filter((id) => !s.lacking.includes(id)),
  };
}

export { articulationAfter, turnAfter, type Train } from "./motion";
export {
  inLineChance,
  straighten,
  type Articulation,
  type Pull,
  type StraightenAdvice,
} from "./advice";
export {
  articulationFrom,
  TAPES,
  type Coupled,
  type TapeId,
  type TapeReading,
  type TowFrame,
  type TrailerFrame,
} from "./articulation";

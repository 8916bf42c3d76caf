export { readFigure, type FigureUnit } from "./figure";
export {
  formatChance,
  formatInchFraction,
  formatLength,
  formatNumber,
  formatQuantity,
} from "./format";
export { splitPair } from "./pair";
export { parseQuantity, type Meaning, type Parsed } from "./parse";
export { degToRad, radToDeg, type Quantity, type UnitId } from "./quantity";
export { dayInWords } from "./day";
export { FIRST_ZONE, timesIn, type Times } from "./time";

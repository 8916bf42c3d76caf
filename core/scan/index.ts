export {
  isMissed,
  scanState,
  type FaultCode,
  type ModuleReading,
  type ScanEvent,
  type ScanState,
} from "./scan";
export { askedOf, compareScans, type Asked, type CodeRow, type UnitRow } from "./compare";
export { CODE_CHANGES, UNIT_CHANGES } from "./words";

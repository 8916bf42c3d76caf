/** What the bench needs when something is asked or goes wrong: fetched as one, before it does. */
export { CommandBox } from "../find/command-box";
export { KeptHere } from "../outbox/kept-here";
export { RunClock } from "../run/run-clock";
export { SupplyClock } from "../run/supply-clock";
export { ReasonDialog } from "../owed/reason-dialog";
export { Clock } from "./clock";
export { Conflict } from "./conflict";
export { KeySheet } from "./key-sheet";
export { LineDialog } from "./slip-line";

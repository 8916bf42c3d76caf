import type { CodeRow, UnitRow } from "./compare";

/** What became of a code between two readings. */
export const CODE_CHANGES: Record<CodeRow["change"], string> = {
  gone: "gone",
  stayed: "was there before, stayed",
  new: "new since the first reading",
  unread: "there now, not read before",
};

/** What became of a control unit between two readings. */
export const UNIT_CHANGES: Record<UnitRow["change"], string> = {
  answers: "answers",
  lost: "answered before, silent now",
  found: "silent before, answers now",
  silent: "does not answer",
  "not-fitted": "not fitted to this vehicle",
};

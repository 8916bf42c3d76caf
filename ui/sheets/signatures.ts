/** What a second person's signature changes in a sheet. */
export const SHEET_SIGNATURES = [
  "source.enteredBy",
  "source.checkedBy",
  "source.checkedOn",
] as const;

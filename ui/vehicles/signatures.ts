/** What a second person's signature changes in a vehicle. */
export const VEHICLE_SIGNATURES = [
  "checked",
  "checked.enteredBy",
  "checked.checkedBy",
  "checked.checkedOn",
] as const;

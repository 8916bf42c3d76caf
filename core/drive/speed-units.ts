const KMH = 1 / 3.6;
const MPH = 1609.344 / 3600;

/** What one of a unit of speed is in metres a second. */
export const SPEED_UNITS = { "km/h": KMH, mph: MPH } as const;

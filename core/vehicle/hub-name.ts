import type { Vehicle } from "./schema";

/** What a hub is called: "rear hub left", "third axle’s hub left". */
export function hubName(v: Pick<Vehicle, "furtherAxles">, axle: string, left: boolean): string {
  const further = v.furtherAxles?.find((a) => a.id === axle);
  return `${further ? `${further.name}’s` : axle} hub ${left ? "left" : "right"}`;
}

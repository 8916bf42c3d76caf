import { isOverdue } from "@/core/kit";
import { bookingsOn } from "./store";
import { listCheckedInstruments, listVehicles } from "../shop/store";

/** What belongs to a day besides its jobs: kit that is due, and what has to be at hand. */
export function remindersFor(day: string): string[] {
  const overdue = listCheckedInstruments()
    .filter((i) => isOverdue(i, day))
    .map((i) => i.name);
  const vehicles = listVehicles();
  const gateways = bookingsOn(day).flatMap(({ doc }) =>
    vehicles.filter((v) => v.id === doc.vehicleId && v.gateway).map((v) => `${v.make} ${v.model}`),
  );
  return [
    ...(overdue.length > 0
      ? [`Check is overdue: ${overdue.join(", ")}. Until then they count with more uncertainty.`]
      : []),
    ...(gateways.length > 0
      ? [
          `Have the hotspot charged: ${[...new Set(gateways)].join(", ")} signs in over the network.`,
        ]
      : []),
  ];
}

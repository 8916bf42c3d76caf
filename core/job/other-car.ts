import { itemsOf } from "./items";
import type { CalibrationGround } from "./ground";
import { checksOf, type JobEvent } from "./job";

/** The VIN because of which the tool was refused. */
const vinRefused = ({ body }: JobEvent): string | undefined =>
  (body.kind === "scan" || body.kind === "run") && "vin" in body.event && body.event.type !== "read"
    ? body.event.vin
    : undefined;

/**
 * Whether the scan tool is plugged into another vehicle than the one this job is of, in words with
 * the remedy; null where it is not, or where somebody accepted it with a reason (a VIN that was typed
 * wrong, a unit taken from another vehicle).
 *
 * @param read the VIN the tool reads
 */
export function otherCar(
  view: CalibrationGround,
  events: readonly JobEvent[],
  read: string,
): string | null {
  const { vin } = view.intake;
  if (read === vin) return null;
  const scan = itemsOf(view, "ready").find((i) => i.measure?.kind === "scan");
  const check = scan && checksOf(events, "ready").get(scan.id);
  // Accepted for another reason (a silent unit) before this was said, it accepts nothing of this.
  const told = events.find((e) => vinRefused(e) === read);
  if (check?.body.outcome === "accepted" && told && check.seq > told.seq) return null;
  return `The tool is in another vehicle: it reads VIN ${read}, and this job is of ${vin}. Plug it in here. If the VIN was typed wrong, accept the scan with that as the reason.`;
}

import type { RuleBook } from "@/core/owed";
import { DEFAULT_THRESHOLDS, type Instrument, type SetOutEntry, type SetOutPlan, type Stand } from "@/core/setout";
import type { Sheet } from "@/core/sheet";
import { degToRad } from "@/core/units";
import type { Vehicle } from "@/core/vehicle";
import type { Intake } from "./events";
import { strikes, type JobEvent } from "./job";

/** What a job stands on: its intake and the documents that were in force when it was taken in. */
export type JobGround = {
  intake: Intake;
  vehicle: Vehicle;
  sheet: Sheet;
  stand: Stand;
  instruments: Instrument[];
  ruleBook: RuleBook;
};

/** The plan core/setout works on. */
export const planFor = (g: JobGround): SetOutPlan => ({
  vehicle: g.vehicle,
  sheet: g.sheet,
  stand: g.stand,
  instruments: g.instruments,
  rearToe: g.intake.rearToeDeg && {
    leftRad: degToRad(g.intake.rearToeDeg.left),
    rightRad: degToRad(g.intake.rearToeDeg.right),
  },
  thresholds: DEFAULT_THRESHOLDS,
});

/** What happened at the stand, without what was struck. */
export function setOutEntries(events: readonly JobEvent[]): SetOutEntry[] {
  const struck = strikes(events);
  return events.flatMap((e): SetOutEntry[] => {
    if (struck.has(e.id)) return [];
    const b = e.body;
    if (b.kind === "reading") return [{ kind: "reading", id: e.id, slotId: b.slotId, shown: b.shown, sigma: b.sigma }];
    if (b.kind === "touch") return [{ kind: "touch", id: e.id, touch: b.touch }];
    if (b.kind === "move") return [{ kind: "move", id: e.id, move: b.move, rest: b.rest }];
    return [];
  });
}

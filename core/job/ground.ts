import type { DrivePolicy } from "@/core/drive/policy";
import type { Board } from "@/core/kit";
import type { RuleBook } from "@/core/owed";
import type { BayFloor, GlassPolicy } from "@/core/ready";
import type { ReleaseRule } from "./release-rule";
import type { Instrument, Stand } from "@/core/setout";
import type { Sheet } from "@/core/sheet";
import type { Vehicle } from "@/core/vehicle";
import type { Intake } from "./events";

/** One sheet that is carried out in a job, and the stand that carries its first target. */
export type Calibration = { id: string; sheet: Sheet; stand: Stand };

/** What a job stands on: its intake and the documents that were in force when it was taken in. */
export type JobGround = {
  intake: Intake;
  vehicle: Vehicle;
  /** In the order they are done. */
  calibrations: Calibration[];
  /**
   * Every stand of the kit that may be used, for sheets with boards beside each other; absent on
   * older jobs.
   */
  stands?: Stand[];
  instruments: Instrument[];
  /** Floors of the shop's bays that are still good; absent on older jobs. */
  bayFloors?: BayFloor[];
  /** The boards of the kit; absent on jobs older than their check. */
  boards?: Board[];
  ruleBook: RuleBook;
  /** The bay and its devices are real; absent where they are simulated stand-ins. */
  real?: true;
  /** The shop's school: the maker's glass only, or an equivalent part with a recorded reason. */
  glassPolicy: GlassPolicy;
  /** The shop's school of driving; absent on older jobs, where anything goes that the sheet allows. */
  drivePolicy?: DrivePolicy;
  /** Who gives vehicles back; absent on older jobs, where anybody who writes does. */
  release?: ReleaseRule;
};

/** The ground of a job as one of its calibrations sees it. */
export type CalibrationGround = JobGround & Omit<Calibration, "id"> & { calibrationId: string };

/** One calibration of a job; its first where there is none of that name. */
export function viewOf(ground: JobGround, calibrationId: string | null): CalibrationGround {
  const { id, sheet, stand } =
    ground.calibrations.find((c) => c.id === calibrationId) ?? ground.calibrations[0]!;
  return { ...ground, calibrationId: id, sheet: askedOf(sheet, ground.intake), stand };
}

/** The sheet with the steps that are asked after what was done to this vehicle. */
function askedOf(sheet: Sheet, { happenings }: Intake): Sheet {
  const asked = (s: Sheet["run"][number]): boolean =>
    !s.only || happenings.some((h) => s.only!.includes(h.event));
  return sheet.run.every(asked) ? sheet : { ...sheet, run: sheet.run.filter(asked) };
}

/** Every calibration of a job, in the order they are done. */
export const viewsOf = (ground: JobGround): CalibrationGround[] =>
  ground.calibrations.map((c) => viewOf(ground, c.id));

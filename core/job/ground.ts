import type { Board } from "@/core/kit";
import type { RuleBook } from "@/core/owed";
import type { BayFloor, GlassPolicy } from "@/core/ready";
import type { Instrument, Stand } from "@/core/setout";
import type { Sheet } from "@/core/sheet";
import type { Vehicle } from "@/core/vehicle";
import type { Intake } from "./events";

/** What a job stands on: its intake and the documents that were in force when it was taken in. */
export type JobGround = {
  intake: Intake;
  vehicle: Vehicle;
  sheet: Sheet;
  stand: Stand;
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
};

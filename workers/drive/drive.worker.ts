import { expose } from "comlink";
import { plansFor, type DrivePlan, type PlanAsked } from "@/core/drive/plan";

// Hundreds of thousands of half drives: beside the page, so that the page stays quick.
const drive = {
  plans: (asked: PlanAsked): DrivePlan[] => plansFor(asked),
};
export type DriveWorker = typeof drive;
expose(drive);

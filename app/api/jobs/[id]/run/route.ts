import { commandRoute } from "@/server/jobs/command-route";
import { commandRun, runCommandSchema } from "@/server/jobs/run";

/** Carries out one command of the run. */
export const POST = commandRoute(runCommandSchema, commandRun);

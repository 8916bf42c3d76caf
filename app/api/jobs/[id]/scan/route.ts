import { commandRoute } from "@/server/jobs/command-route";
import { commandScan, scanCommandSchema } from "@/server/jobs/scan";

/** Reads or clears through the scan tool, or signs in to the gateway. */
export const POST = commandRoute(scanCommandSchema, commandScan);

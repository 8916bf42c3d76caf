import { nanoid } from "nanoid";
import { z } from "zod";
import {
  calibrationLog,
  itemsOf,
  otherCar,
  scanLogOf,
  viewOf,
  type EventBody,
  type JobEvent,
} from "@/core/job";
import { isOver, toolEnds } from "@/core/kit";
import type { ScanEvent } from "@/core/scan";
import { DeviceRefusal } from "@/devices/scan-tool/scan-tool";
import { clearCodes, readModules, signInToGateway } from "@/devices/vehicle/network";
import type { Person } from "../auth/session";
import { anyBay, networkOf, scanToolFor } from "./bay";
import { writeOwn } from "./append";
import { eventsAfter } from "./log";
import { listTools } from "../kit/store";
import { shopDay } from "../shop/clock";
import { openJob } from "./open-job";
import { JobRefusal } from "./refusal";
import type { JobRow } from "./store";

/**
 * What the technician may ask of the scan tool outside the routine. "drop" cuts the simulated
 * network.
 */
export const scanCommandSchema = z.union([
  z.enum(["read", "volts", "clear", "sign-in", "drop"]),
  /** A unit tests itself for an item of Prove; or somebody says how it did on the shop's own tool. */
  z.object({
    type: z.literal("self-test"),
    calibrationId: z.string().max(64),
    itemId: z.string().max(64),
    told: z.boolean().optional(),
  }),
]);
export type ScanCommand = z.infer<typeof scanCommandSchema>;

const now = (): string => new Date().toISOString();

/**
 * Does what is asked on the simulated vehicle; a refusal is an answer like any other. `pace` scales
 * the delays.
 */
export async function scanOnce(
  job: JobRow,
  events: readonly JobEvent[],
  command: ScanCommand,
  pace: number,
): Promise<ScanEvent> {
  if (typeof command === "object") return selfTest(job, events, command, pace);
  const view = viewOf(job.ground, null);
  const tool = scanToolFor(job, view, events, pace);
  const world = anyBay(job, view, events);
  if (command === "drop")
    return {
      at: now(),
      type: "gateway",
      state: "lost",
      reason: "The network dropped: the gateway’s session is gone. Sign in again when it is back.",
    };
  const vin = await tool.readVin();
  const other = otherCar(view, events, vin);
  // Nothing is read from another vehicle, and still less is anything cleared in it.
  if (other) {
    const what = command === "clear" ? "clear" : "read";
    return { at: now(), type: "refused", what, reason: other, vin };
  }
  if (command === "sign-in") {
    if (!job.ground.vehicle.gateway)
      throw new JobRefusal("This vehicle has no gateway; nothing needs a sign-in.");
    try {
      const tries = scanLogOf(events).filter((e) => e.type === "gateway").length;
      signInToGateway(world, tries, isRegistered(tool.identity.serial));
      return { at: now(), type: "gateway", state: "signed-in", reason: null };
    } catch (error) {
      if (!(error instanceof DeviceRefusal)) throw error;
      return { at: now(), type: "gateway", state: "refused", reason: error.message };
    }
  }
  const { value: volts } = await tool.readValue("battery-voltage");
  if (command === "volts") return { at: now(), type: "volts", volts };
  const network = networkOf(job, events, volts);
  if (command === "read")
    return { at: now(), type: "read", volts, modules: readModules(world, network), vin };
  try {
    clearCodes(network);
    return { at: now(), type: "cleared", volts };
  } catch (error) {
    if (!(error instanceof DeviceRefusal)) throw error;
    return { at: now(), type: "refused", what: "clear", reason: error.message };
  }
}

/** One calibration's unit tests itself. @throws JobRefusal for a job that asks for none there */
async function selfTest(
  job: JobRow,
  events: readonly JobEvent[],
  { calibrationId, itemId, told }: Extract<ScanCommand, { type: "self-test" }>,
  pace: number,
): Promise<ScanEvent> {
  if (!job.ground.calibrations.some((c) => c.id === calibrationId))
    throw new JobRefusal("calibration: this job has none of that name. Reload the page.");
  const view = viewOf(job.ground, calibrationId);
  const item = itemsOf(view, "prove").find((i) => i.id === itemId);
  if (item?.measure?.kind !== "self-test")
    throw new JobRefusal("item: the sheet asks for no self-test there. Reload the page.");
  if (told)
    return {
      at: now(),
      type: "self-test",
      itemId,
      passed: true,
      says: "Content, by its screen.",
      told: true,
    };
  const own = calibrationLog(view, events);
  try {
    const answer = await scanToolFor(job, view, own, pace).selfTest();
    return { at: now(), type: "self-test", itemId, ...answer };
  } catch (error) {
    if (!(error instanceof DeviceRefusal)) throw error;
    throw new JobRefusal(error.message);
  }
}

/** Whether the tool of this number is registered with the gateways; one the kit does not list is. */
function isRegistered(serial: string): boolean {
  const tool = listTools().find((t) => t.serial === serial);
  return !tool || toolEnds(tool, shopDay(), true).every((e) => e.what !== "gateway" || !isOver(e));
}

/** The line a command leaves: of its calibration, where it was for one alone. */
export const scanBody = (
  command: ScanCommand,
  event: ScanEvent,
): Extract<EventBody, { kind: "scan" }> => ({
  kind: "scan",
  event,
  ...(typeof command === "object" && { calibrationId: command.calibrationId }),
});

/**
 * Carries out one command and writes what came of it. @returns all events after `baseSeq` @throws
 * JobRefusal
 */
export async function commandScan(
  jobId: string,
  baseSeq: number,
  command: ScanCommand,
  person: Person,
): Promise<JobEvent[]> {
  const job = openJob(jobId);
  const event = await scanOnce(job, eventsAfter(jobId), command, 1);
  const body = scanBody(command, event);
  writeOwn(jobId, () => [{ id: nanoid(16), at: event.at, body }], person);
  return eventsAfter(jobId, baseSeq);
}

import { nanoid } from "nanoid";
import { z } from "zod";
import { otherCar, scanLogOf, viewOf, type JobEvent } from "@/core/job";
import type { ScanEvent } from "@/core/scan";
import { DeviceRefusal } from "@/devices/scan-tool/scan-tool";
import { clearCodes, readModules, signInToGateway } from "@/devices/vehicle/network";
import type { Person } from "../auth/session";
import { anyBay, networkOf, scanToolFor } from "./bay";
import { writeOwn } from "./append";
import { eventsAfter } from "./log";
import { openJob } from "./open-job";
import { JobRefusal } from "./refusal";
import type { JobRow } from "./store";

/**
 * What the technician may ask of the scan tool outside the routine. "drop" cuts the simulated
 * network.
 */
export const scanCommandSchema = z.enum(["read", "volts", "clear", "sign-in", "drop"]);
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
      signInToGateway(world, scanLogOf(events).filter((e) => e.type === "gateway").length);
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
  writeOwn(jobId, () => [{ id: nanoid(16), at: event.at, body: { kind: "scan", event } }], person);
  return eventsAfter(jobId, baseSeq);
}

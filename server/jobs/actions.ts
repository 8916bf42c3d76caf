"use server";

import { ZodError } from "zod";
import { plainMessage } from "@/core/book";
import { simulatedPlug } from "@/devices/scan-tool/plug";
import { DeviceRefusal } from "@/devices/scan-tool/scan-tool";
import { asWriter, Refusal, type Answer } from "../auth/as-writer";
import { grantHandOn } from "../auth/hand-on";
import { checkPin } from "../auth/pin";
import { deviceToken } from "../auth/session";
import { eraseCustomer } from "../log/erase";
import { listVehicles } from "../shop/store";
import { findPastVehicles, pastVehicle, type PastVehicle } from "./past";
import { JobRefusal } from "./refusal";
import { newestNumber } from "./store";
import { takeIn } from "./take-in";

export type TakeInAnswer = { id: string; message?: undefined } | { message: string };

/** Opens a job. Answers with its id, or with the field at fault. */
export async function takeInVehicle(input: unknown): Promise<TakeInAnswer> {
  const answer = await asWriter("take-in", (person) => {
    try {
      return { id: takeIn(input, person) };
    } catch (error) {
      if (error instanceof JobRefusal) throw new Refusal(error.message);
      if (error instanceof ZodError)
        throw new Refusal(
          error.issues.map((i) => `${i.path.join(".")}: ${plainMessage(i)}`).join(" "),
        );
      throw error;
    }
  });
  return answer.ok ? { id: answer.id } : { message: answer.message };
}

/**
 * The VIN of the car that the scan tool is plugged into, before there is a job.
 *
 * @param asked how often it was asked before
 */
export async function vinFromTool(asked: unknown): Promise<Answer<{ vin: string }>> {
  return asWriter("take-in", async () => {
    const starts = listVehicles().map((v) => v.vinStart);
    const arrival = `arrival ${newestNumber()}`;
    try {
      return { vin: await simulatedPlug(starts, arrival, Number(asked) || 0).readVin() };
    } catch (error) {
      if (error instanceof DeviceRefusal) throw new Refusal(error.message);
      throw error;
    }
  });
}

/** Vehicles that were here before, by words; and the one with a VIN. */
export const pastByWords = async (find: string): Promise<Answer<{ vehicles: PastVehicle[] }>> =>
  asWriter("take-in", () => ({ vehicles: findPastVehicles(String(find).slice(0, 80)) }));
export const pastByVin = async (vin: string): Promise<Answer<{ vehicle: PastVehicle | null }>> =>
  asWriter("take-in", () => ({ vehicle: pastVehicle(String(vin).slice(0, 40)) }));

/** Lets this tablet send another person's waiting lines into a job, that person's PIN in hand. */
export async function handOn(
  jobId: string,
  personId: string,
  pin: string,
): Promise<Answer<{ token: string }>> {
  return asWriter("take-in", async () => {
    const checked = await checkPin(String(personId), String(pin).slice(0, 32), await deviceToken());
    if (!checked.ok) throw new Refusal(checked.message);
    return { token: grantHandOn(checked.personId, String(jobId)) };
  });
}

/** Erases what is a customer's own from a job, on request. */
export const eraseCustomerOf = async (jobId: string, reason: string): Promise<Answer<object>> =>
  asWriter("erase", (me) => {
    eraseCustomer(String(jobId), String(reason), me);
    return {};
  });

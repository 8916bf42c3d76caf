import { randomFrom, seedFrom } from "@/core/math/random";
import { DeviceRefusal } from "../scan-tool/scan-tool";
import type { Letter, Mailer } from "./mailer";

/** How often the stand-in's far end does not answer. */
const SILENT = 0.06;

/**
 * A made-up post office: it takes its time, refuses an address that no house has, and now and then does
 * not answer. No letter leaves the machine.
 *
 * @param asked how many letters it was given before
 * @param pace scales its delay
 */
export function simulatedMailer(asked: number, pace = 1): Mailer {
  return {
    async send({ to }: Letter) {
      await new Promise((done) => setTimeout(done, 600 * pace));
      const house = to.split("@")[1] ?? "";
      // What ends in a name that nobody can own is answered as an unknown house.
      if (/\.(invalid|nowhere)$/i.test(house))
        throw new DeviceRefusal(`${house} takes no letters. Look at the address, then send again.`);
      if (randomFrom(seedFrom(`${to}/${asked}`))() < SILENT)
        throw new DeviceRefusal("The post did not answer. Send it again.");
    },
  };
}

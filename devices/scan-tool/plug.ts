import { randomFrom, seedFrom } from "@/core/math/random";
import { vinCheckDigit } from "@/core/vehicle";
import { DeviceRefusal } from "./scan-tool";

/** A scan tool that was plugged in before there is a job: all it is asked is whose car this is. */
export interface Plug {
  /** @throws DeviceRefusal when the vehicle does not answer, or keeps its VIN to itself */
  readVin(): Promise<string>;
}

const SIGNS = "ABCDEFGHJKLMNPRSTUVWXYZ0123456789";
const SILENT = 0.12;
const UNTOLD = 0.08;

/**
 * The stand-in: a made-up car of one of the shop's kinds stands in the bay until it is taken in.
 *
 * @param starts how the VINs of the shop's kinds of vehicle begin
 * @param arrival which car it is: the same name, the same car
 * @param asked how often it was asked before; a plug that was not home answers the next time
 */
export function simulatedPlug(
  starts: readonly string[],
  arrival: string,
  asked: number,
  pace = 1,
): Plug {
  return {
    async readVin() {
      await new Promise((done) => setTimeout(done, 700 * pace));
      const luck = randomFrom(seedFrom(`${arrival}/plug/${asked}`))();
      if (luck < SILENT)
        throw new DeviceRefusal(
          "The vehicle did not answer. Push the plug home, switch the ignition on, and ask again.",
        );
      const car = randomFrom(seedFrom(`${arrival}/car`));
      const start = starts[Math.floor(car() * starts.length)];
      if (start === undefined || car() < UNTOLD)
        throw new DeviceRefusal(
          "The vehicle answers, but keeps its VIN to itself. Read it off the windshield frame.",
        );
      const sign = (k: number): string => {
        const from = k < 11 ? SIGNS : "0123456789";
        return from[Math.floor(car() * from.length)]!;
      };
      const open = Array.from({ length: 17 }, (_, k) => (k === 8 ? "0" : (start[k] ?? sign(k))));
      open[8] = vinCheckDigit(open.join(""));
      return open.join("");
    },
  };
}

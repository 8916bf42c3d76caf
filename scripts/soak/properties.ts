import { spawnSync } from "node:child_process";
import { randomInt } from "node:crypto";
import { told } from "./house";

/** Runs the tests of pure functions with examples nobody has seen; what fails names its seed. */
export function properties(times: number): void {
  for (let n = 0; n < times; n++) {
    const seed = String(randomInt(2 ** 31));
    const run = spawnSync("npx", ["vitest", "run", "--project", "pure", "--reporter=dot"], {
      env: { ...process.env, PROPERTY_SEED: seed },
      encoding: "utf8",
    });
    if (run.status !== 0) console.log(run.stdout.slice(-4000));
    told("properties with examples of their own", run.status === 0, `PROPERTY_SEED=${seed}`);
  }
}

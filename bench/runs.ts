import { randomFrom } from "@/core/math/random";
import { replayRun } from "@/core/run";
import { randomRun, randomSteps } from "@/tests/runs";

/** 10,000 runs by chance: every log replays to the state it was written in. */
export function runs(): void {
  const MANY = 10_000;
  const all = Array.from({ length: MANY }, (_, n) => {
    const random = randomFrom(n);
    const steps = randomSteps(random);
    return { steps, ...randomRun(random, steps, 60) };
  });
  const from = performance.now();
  const states = all.map(({ log, steps }) => replayRun(log, steps));
  const ms = performance.now() - from;
  const same = states.filter(
    (s, n) => JSON.stringify(s) === JSON.stringify(all[n]!.states.at(-1) ?? s),
  ).length;
  const events = all.reduce((s, r) => s + r.log.length, 0);
  console.log(
    `runs: ${MANY} logs of ${events} events replayed in ${ms.toFixed(0)} ms (${((1000 * ms) / events).toFixed(2)} us an event); ${same} to the same state`,
  );
  if (same !== MANY) throw new Error(`${MANY - same} logs do not replay to the same state.`);
}

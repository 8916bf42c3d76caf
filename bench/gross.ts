import { nextAct, readingSigma, slotsFor, solveSetOut, type SetOutEntry } from "@/core/setout";
import { measure, openBay } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";

const TAKEN = [
  "tape-fl-l",
  "tape-fr-r",
  "tape-fl-r",
  "tape-fr-l",
  "tape-rl-l",
  "tape-rr-r",
  "laser-badge",
  "height-rule",
];
/**
 * What a hand types for a tape of about 2.9 m or 5.5 m: digits swapped, left out, doubled, the foot
 * of the page.
 */
const WRONG_MM = [500, 800, 1200, 8000, 12_000];

/**
 * Set-outs with one tape typed grossly wrong: how many are solved, named, and taken all the same.
 */
export function gross(cases: number): void {
  const plan = planOf(0, 0);
  const slots = slotsFor(plan);
  const counts = { solved: 0, named: 0, accepted: 0 };
  for (let n = 0; n < cases; n++) {
    const world = openBay(`gross/${n}`, plan);
    const slip = TAKEN[Math.floor(n / WRONG_MM.length) % 6]!;
    const entries = TAKEN.map((slotId): SetOutEntry => {
      const slot = slots.find((s) => s.id === slotId)!;
      const instrument = plan.instruments.find((i) => i.kind === slot.instrument)!;
      const shown = slotId === slip ? WRONG_MM[n % WRONG_MM.length]! : measure(world, slotId, 0);
      return {
        kind: "reading",
        id: `r-${slotId}`,
        slotId,
        shown,
        sigma: readingSigma(instrument, slot, shown),
      };
    });
    const { solution, verdict, next } = nextAct(solveSetOut(plan, entries));
    if (solution.adjustment) counts.solved++;
    if (solution.adjustment?.suspect === `r-${slip}`) counts.named++;
    // Taken: called set, or answered with a move of a board whose place is not known.
    if (verdict.kind === "set" || next.kind === "settle" || next.kind === "move") counts.accepted++;
  }
  const share = (k: number): string => `${k} of ${cases} (${((100 * k) / cases).toFixed(1)} %)`;
  console.log(`one tape typed grossly wrong (${WRONG_MM.join(", ")} mm), ${cases} set-outs`);
  console.log(`  solved                                   ${share(counts.solved)}`);
  console.log(`  the slip named                           ${share(counts.named)}`);
  console.log(`  accepted all the same                    ${share(counts.accepted)}`);
}

import { slotsFor, TOUCHES, type TouchKind } from "@/core/setout";
import { openBay } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { atRandom, byAdvice, inOrder, readUntilSure, recheck, setBoard } from "@/bench/hands";

const middle = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;

/**
 * Readings to a sure verdict, by advice, in a fixed order, at random; and re-checks after each kind
 * of touch.
 */
export function trials(setUps: number, touches: number): void {
  const plan = planOf(0, 0);
  const order = slotsFor(plan)
    .filter((s) => s.observes.in !== "plan" || s.id.startsWith("tape") || s.id.startsWith("laser"))
    .map((s) => s.id);
  const counts = { advice: [] as number[], fixed: [] as number[], random: [] as number[] };
  for (let n = 0; n < setUps; n++) {
    const world = openBay(`trial/${n}`, plan);
    counts.advice.push(readUntilSure(world, [], byAdvice, "a").readings);
    counts.fixed.push(readUntilSure(world, [], inOrder(order), "f").readings);
    counts.random.push(readUntilSure(world, [], atRandom(`r${n}`, order), "r").readings);
  }
  console.log(`readings to a sure verdict, medians of ${setUps} set-ups`);
  for (const [name, list] of Object.entries(counts))
    console.log(
      `  ${name.padEnd(8)} ${middle(list)}  (mean ${(list.reduce((a, b) => a + b, 0) / list.length).toFixed(1)})`,
    );

  console.log(
    `after a touch: re-checks by the advice against all readings again (${order.length}), ${touches} set-ups each`,
  );
  for (const touch of Object.keys(TOUCHES) as TouchKind[]) {
    const done = Array.from({ length: touches }, (_, n) => {
      const set = setBoard(plan, `touch/${n}`);
      return set && recheck(set, touch, `${touch}${n}`);
    }).flatMap((t) => t ?? []);
    const sure = done.filter((t) => t.verdict !== "read").length;
    const told = done.filter((t) => t.verdict === "move").length;
    console.log(
      `  ${TOUCHES[touch].name.padEnd(26)} ${middle(done.map((t) => t.readings))} re-checks (median), sure again in ${sure} of ${done.length}; said to have moved ${told} times, truly by ${middle(done.map((t) => t.movedMm)).toFixed(1)} mm (median)`,
    );
  }
}

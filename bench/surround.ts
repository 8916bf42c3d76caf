import { playCauses } from "@/core/surround";
import { drawCabinView } from "@/devices/vehicle/cabin-picture";
import { MATS, reliability, SURROUND, world } from "@/tests/mishaps";

/** The joined picture: how long one takes to draw, and whether stated chances come true. */
export function surround(median: (rounds: number, work: () => unknown) => number): void {
  const view = world({}, "bench");
  const area = { middle: [1400, 0] as const, mmPerPixel: 12, width: 800, height: 800 };
  console.log("joined picture");
  console.log(
    `  800 x 800 drawn from its cameras             ${median(20, () => drawCabinView(view, area)).toFixed(1)} ms`,
  );
  console.log(
    `  every cause played through                   ${median(10, () => playCauses(SURROUND, MATS)).toFixed(0)} ms`,
  );
  const { first, fitted, bins } = reliability(playCauses(SURROUND, MATS, 3), 1000, 7);
  const percent = (v: number): string => `${(100 * v).toFixed(1)} %`;
  console.log(
    `  1,000 mishaps: the true group first ${percent(first)}, explained ${percent(fitted)}; chances as stated and as they came true`,
  );
  for (const b of bins)
    console.log(
      `    ${String(b.n).padStart(6)} groups  said ${percent(b.said / b.n)}  came ${percent(b.came / b.n)}`,
    );
}

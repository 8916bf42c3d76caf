import { randomFrom } from "@/core/math/random";
import { baySchema, type Bay } from "@/core/space/bay";
import type { Vec } from "@/core/space/convex";
import { placesFor } from "@/core/space/places";
import { needFor, vehicleZone } from "@/core/space/zones";
import { VEHICLES } from "@/demo/data/vehicles";
import { gridBest } from "@/tests/any-bay";

/** A shop's bay with thirty things in it, most of them along its walls. */
function fullBay(seed: number): Bay {
  const random = randomFrom(seed);
  const [w, d] = [11_000 + random() * 5000, 6500 + random() * 3500];
  const obstacles = Array.from({ length: 30 }, (_, i) => {
    const [size, turn] = [150 + random() * 400, random() * 6];
    const [x, y] = [random() * w, random() * d];
    const wall = random() < 0.8;
    const at: Vec = !wall
      ? [x, y]
      : random() < 0.5
        ? [x, random() < 0.5 ? size : d - size]
        : [random() < 0.5 ? size : w - size, y];
    const outline = [0, 1, 2, 3].map((k): Vec => [
      at[0] + size * Math.cos(turn + (k * Math.PI) / 2),
      at[1] + size * Math.sin(turn + (k * Math.PI) / 2),
    ]);
    return { name: `t${i}`, outline, fromMm: !wall && random() < 0.7 ? 2100 : 0, toMm: 3000 };
  });
  const outline: Vec[] = [
    [0, 0],
    [w, 0],
    [w, d],
    [0, d],
  ];
  return baySchema.parse({ id: "b", name: "B", outline, obstacles });
}

/** So many bays are searched on the grid as well. */
const GRIDS = 5;

/** Six calibrations of one vehicle in full bays, beside a search of a grid for all of them at once. */
export function bays(many: number): void {
  const car = VEHICLES[0]!;
  const [ours, theirs]: number[][] = [[], []];
  let parted = 0;
  for (let n = 0; n < many; n++) {
    const random = randomFrom(900 + n);
    const needs = Array.from({ length: 6 }, (_, i) =>
      needFor(car, `calibration ${i + 1}`, {
        ahead: i % 3 === 2 ? 0 : random() * 4,
        behind: i % 3 === 1 ? random() * 2.5 : 0,
        sides: i % 3 === 2 ? 0.8 + random() * 1.2 : 0,
      }),
    );
    const bay = fullBay(500 + n);
    let from = performance.now();
    const places = placesFor(bay, vehicleZone(car), needs);
    ours!.push(performance.now() - from);
    if (places.length > 1) parted++;
    // One that needs more places has none on the grid: that search would look at every pose for nothing.
    if (places.length > 1 || theirs!.length === GRIDS) continue;
    from = performance.now();
    gridBest(bay, [vehicleZone(car), ...needs.flatMap((need) => need.zones)], 50, 2);
    theirs!.push(performance.now() - from);
  }
  for (const times of [ours!, theirs!]) times.sort((a, b) => a - b);
  const middle = (of: number[]): number => of[of.length >> 1]!;
  console.log(`where 6 calibrations fit in ${many} bays of 30 things (${parted} need more places)`);
  console.log(
    `  ${middle(ours!).toFixed(0)} ms (median), slowest ${ours!.at(-1)!.toFixed(0)} ms; a grid of 50 mm and 2 degrees, for one place alone: ${middle(theirs!).toFixed(0)} ms, ${(middle(theirs!) / middle(ours!)).toFixed(1)} times as long`,
  );
}

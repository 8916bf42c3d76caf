import { looksOf } from "@/core/drive/look";
import { joinsOf } from "@/core/drive/least";
import { networkOf } from "@/core/drive/network";
import { plansFor } from "@/core/drive/plan";
import {
  junctionFields,
  roadFields,
  type Junction,
  type Road,
  type RoadPlace,
} from "@/core/drive/road";
import { randomFrom } from "@/core/math/random";
import { SHEETS } from "@/demo/data/sheets";

/** Runs in a worker of its own: how long a large map takes there, and how much memory. */

/** A plain of so many streets by so many, every tenth a faster one with good lines. */
function plain(side: number): { roads: Road[]; junctions: Junction[] } {
  const random = randomFrom(5);
  const at = (x: number, y: number): RoadPlace => [1 + x * 0.004, 56 + y * 0.0022];
  const roads: Road[] = [];
  const add = (a: RoadPlace, b: RoadPlace, fast: boolean): void => {
    const line = (kind: "solid" | "broken") => ({
      kind,
      seen: fast ? 0.85 + random() * 0.14 : random() * 0.5,
    });
    const fields = roadFields.parse({
      name: `R${roads.length}`,
      limitKmh: fast ? 80 : 40,
      along: { left: line("solid"), right: line("broken") },
      traffic: Array<number>(24).fill(random() * 0.5),
    });
    roads.push({ ...fields, id: `r${roads.length}`, points: [a, b] });
  };
  const junctions: Junction[] = [];
  for (let x = 0; x < side; x++)
    for (let y = 0; y < side; y++) {
      if (x + 1 < side) add(at(x, y), at(x + 1, y), y % 10 === 0);
      if (y + 1 < side) add(at(x, y), at(x, y + 1), x % 10 === 0);
      const control = x % 10 === 0 && y % 10 === 0 ? "roundabout" : "give-way";
      junctions.push({
        ...junctionFields.parse({ control, turnRound: control === "roundabout" }),
        at: at(x, y),
      });
    }
  return { roads, junctions };
}

const rules = SHEETS.find((s) => s.id === "harrow-forward")!.drive!;
const NOON = Date.UTC(2026, 10, 3, 12);
const SIDE = 160;
const roads = plain(SIDE);
const before = process.memoryUsage().heapUsed;
let from = performance.now();
const network = networkOf(roads);
joinsOf(network);
const joined = performance.now() - from;
const forecast = Array.from({ length: 4 }, (_, h) => ({
  fromMs: NOON + h * 3_600_000,
  rain: 0.1 * h,
  fog: 0,
  snow: 0,
  wet: 0,
  cloud: 0.5,
}));
for (const hour of [0, 1, 2]) {
  from = performance.now();
  const { plans } = plansFor({
    network,
    shop: [1 + (SIDE / 2) * 0.004, 56 + (SIDE / 2) * 0.0022],
    rules,
    forecast,
    cameras: looksOf("forward-camera"),
    departs: [NOON + hour * 3_600_000],
    zoneHours: 0,
  });
  const took = performance.now() - from;
  const [plan] = plans;
  const mb = (process.memoryUsage().heapUsed - before) / 1e6;
  console.log(
    `drives on ${roads.roads.length} roads in a worker (joined once in ${joined.toFixed(0)} ms): ${plan ? `${(plan.seconds / 60).toFixed(1)} min, not below ${(plan.leastS / 60).toFixed(1)}` : "none"}, answered in ${took.toFixed(0)} ms, ${mb.toFixed(0)} MB more than before`,
  );
}

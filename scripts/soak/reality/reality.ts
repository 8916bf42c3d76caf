import { randomFrom } from "@/core/math/random";
import {
  agree,
  decideByThird,
  nextAct,
  solveSetOut,
  type SchoolId,
  type SetOutEntry,
  type SetOutPlan,
} from "@/core/setout";
import { JOINT_95, mahalanobis } from "@/tests/coverage";
import { planOf } from "@/tests/fixtures";
import { told } from "../house";
import { Bay, type Cause } from "./bay";

/** How one set-out by the advice ended. */
type Outcome = {
  end: "set" | "stuck" | "too long";
  /** It was called set, and stands outside a tolerance. */
  falsely: boolean;
  /** The stated region of its place holds the truth. */
  covered: boolean;
  readings: number;
  moves: number;
  seconds: number;
};

/** What a hand on the stand costs, seconds: walking there, loosening, moving, locking. */
const MOVE_SECONDS = 25;
/** Taking a clamp off and seating it anew, seconds. */
const SEAT_SECONDS = 25;

function setOut(plan: SetOutPlan, cause: Cause, seed: number): Outcome {
  const bay = new Bay(plan, cause, randomFrom(seed));
  let entries: SetOutEntry[] = [];
  let [readings, moves, seconds] = [0, 0, 0];
  const strike = (ids: readonly string[]): void => {
    entries = entries.filter((e) => !ids.includes(e.id));
  };
  const ended = (end: Outcome["end"]): Outcome => ({
    end,
    falsely: false,
    covered: true,
    readings,
    moves,
    seconds,
  });
  for (let n = 0; n < 90; n++) {
    const judged = nextAct(solveSetOut(plan, entries));
    const { next, solution } = judged;
    switch (next.kind) {
      case "settle": {
        const truth = bay.truth();
        const t = plan.target.tolerance;
        const outside = (error: number, half = Infinity): boolean => Math.abs(error) > half;
        const falsely =
          outside(truth.alongMm, t.alongMm) ||
          outside(truth.acrossMm, t.acrossMm) ||
          outside(truth.twistRad / (Math.PI / 180), t.twistDeg) ||
          outside(truth.heightMm, t.heightMm);
        const aim = solution.aim!;
        const off = [
          aim.alongMm - truth.alongMm,
          aim.acrossMm - truth.acrossMm,
          aim.twistRad - truth.twistRad,
        ];
        const covered = mahalanobis(aim.covariance, off) < JOINT_95[3]!;
        return { ...ended("set"), falsely, covered };
      }
      case "move": {
        const { predicted: _, ...move } = next.move;
        bay.move(move);
        moves++;
        seconds += MOVE_SECONDS;
        const rest = next.rest.map(({ predicted: __, ...m }) => m);
        entries.push({ kind: "move", id: `m${n}`, move, rest });
        break;
      }
      case "stuck":
        if (!next.leaveOut) return ended("stuck");
        strike(next.leaveOut.ids);
        break;
      case "read": {
        const { slot, sigma, anew } = next.candidate;
        const shown = bay.read(slot.id, anew);
        readings++;
        seconds += slot.seconds + (anew ? SEAT_SECONDS : 0);
        const byId = (id: string) => solution.readings.find((r) => r.id === id)!;
        if (next.decides) {
          const [a, b] = next.decides;
          strike(decideByThird([byId(a), byId(b)], shown, sigma).map((d) => d.strike));
        }
        const old = next.again && byId(next.again);
        if (old && !agree(old.shown, old.sigma, shown, sigma)) strike([old.id]);
        entries.push({ kind: "reading", id: `r${n}`, slotId: slot.id, shown, sigma, anew });
      }
    }
  }
  return ended("too long");
}

/** The demo's sheets by place: on the centreline, and on the thrust line of a printout. */
const [ON_CENTRELINE, ON_THRUST] = [0, 2];

/** What may be wrong in a bay. A row of one way only is of what the others do not have. */
const ROWS: { name: string; cause: Cause; sheet?: number; of?: SchoolId }[] = [
  { name: "nothing", cause: {} },
  { name: "everything as wide as allowed for", cause: { wide: true } },
  { name: "one 20 mm slip", cause: { slipMm: 20 } },
  { name: "one 10 mm slip", cause: { slipMm: 10 } },
  { name: "all hub caps 3 mm off", cause: { capsOutMm: 3 } },
  { name: "both front hubs 3 mm forward", cause: { frontHubsMm: 3 } },
  { name: "tape scale +0.5 per mille", cause: { tapeScale: 5e-4 } },
  { name: "stand leans 0.5 deg to and fro", cause: { leanDeg: 0.5 } },
  {
    name: "stand leans 0.5 deg sideways, laser on the beam",
    cause: { sideDeg: 0.5, laserOnBeam: true },
  },
  { name: "thrust 0.15 deg beside the printout", cause: { thrustDeg: 0.15 }, sheet: ON_THRUST },
  { name: "a panel's seat 5 mm askew", cause: { seatMm: 5 }, of: "wheel-panels" },
];
const WAYS = ["tapes", "wheel-panels"] as const;

const median = (of: number[]): number => [...of].sort((a, b) => a - b)[of.length >> 1] ?? NaN;

/** One row of the table in words, and whether it is what the settings promise. */
function row(plan: SetOutPlan, cause: Cause, times: number): { figures: string; honest: boolean } {
  const all = Array.from({ length: times }, (_, n) => setOut(plan, cause, 7_000_000 + n));
  const set = all.filter((o) => o.end === "set");
  const ended = (end: Outcome["end"]): number => all.filter((o) => o.end === end).length;
  const falsely = set.filter((o) => o.falsely).length;
  const share = (n: number): string => `${((100 * n) / set.length).toFixed(1)} %`;
  const of = (part: "readings" | "moves" | "seconds"): number => median(set.map((o) => o[part]));
  const figures = [
    ...(set.length === 0
      ? []
      : [
          `${falsely} of ${set.length} set stand outside (${share(falsely)})`,
          `the region holds ${share(set.filter((o) => o.covered).length)}`,
          `medians ${of("readings")} readings, ${of("moves")} moves, ${of("seconds")} s`,
        ]),
    `${ended("stuck")} stuck, ${ended("too long")} too long`,
  ].join("; ");
  // At most the chance that is stated, with what luck adds to a count (three sigma).
  const allowed = set.length * (1 - plan.thresholds.setChance);
  const honest = set.length === times && falsely <= allowed + 3 * Math.sqrt(allowed + 1);
  return { figures, honest };
}

/**
 * Set-outs by the advice alone in bays where something is wrong that nobody says. What the settings
 * promise is asked where nothing is wrong; the other rows are printed as they are.
 *
 * @param nominal how many set-outs where nothing is wrong
 * @param wrong how many in each other row
 */
export function reality(nominal: number, wrong: number, way = "", only = ""): void {
  for (const school of WAYS)
    for (const { name, cause, sheet = ON_CENTRELINE, of } of ROWS) {
      if (!school.includes(way) || !name.includes(only)) continue;
      if (of && of !== school) continue;
      const fine = Object.keys(cause).length === 0;
      const plan = planOf(sheet, 0);
      const stand = cause.laserOnBeam ? { ...plan.stand, laserOn: "beam" as const } : plan.stand;
      const { figures, honest } = row({ ...plan, stand, school }, cause, fine ? nominal : wrong);
      if (fine) told(`${school}, ${name} wrong`, honest, figures);
      else console.log(`       ${school}, ${name}: ${figures}`);
    }
}

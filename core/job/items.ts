import { byPlace } from "@/core/ready";
import { floorStep, insideChance, DEFAULT_THRESHOLDS } from "@/core/setout";
import { targetsOf, type CheckItem, type Measure } from "@/core/sheet";
import { boardSides } from "./board-sides";
import type { CalibrationGround, JobGround } from "./ground";

/** Asked where a sheet does not ask for the floor and its height tolerance cannot do without. */
export const ASKED_FLOOR: CheckItem = {
  id: "floor-asked",
  ask: "Floor read at the four tyres and at the stand",
  why: "The height counts from the car’s plane; the sheet’s tolerance is finer than what an unmeasured floor may fall.",
  measure: { kind: "floor", slopeDeg: 1, twistMm: 10 },
};

/** Asked where a sheet has the codes read again after the work, and not before it. */
const ASKED_SCAN: CheckItem = {
  id: "scan-asked",
  ask: "All control units scanned",
  why: "Later nobody can tell what was there before.",
  measure: { kind: "scan" },
};

/** The floor is read at the stands of every side where a board of the job stands. */
function atAllStands(item: CheckItem, g: Pick<JobGround, "calibrations">): CheckItem {
  const stands = boardSides(g);
  const { measure } = item;
  if (measure?.kind !== "floor" || stands.length === 0) return item;
  return { ...item, measure: { ...measure, stands } };
}

/** Limits that ask for at least so much; every other limit allows at most so much. */
const AT_LEAST = new Set(["aheadMm", "sideMm", "minShare", "minVolts", "minMinutes"]);

/** What two sheets ask of one measurement, as one: the stricter of each limit. */
export function strictest<M extends Measure>(a: M, b: M): M {
  const [one, two] = [a, b] as unknown as [Record<string, unknown>, Record<string, unknown>];
  const merged = Object.entries(one).map(([field, mine]) => {
    const other = two[field];
    if (typeof mine !== "number" || typeof other !== "number") return [field, mine];
    return [field, AT_LEAST.has(field) ? Math.max(mine, other) : Math.min(mine, other)];
  });
  return Object.fromEntries(merged) as M;
}

/**
 * What the sheets of a job ask before any of them begins, each thing once: the vehicle and its floor
 * are the same for all. What is measured for two of them is held to the stricter limits. They come
 * place by place, so that nobody walks twice.
 */
function readyItems(g: Pick<JobGround, "calibrations" | "vehicle">): CheckItem[] {
  const items: CheckItem[] = [];
  for (const { id, sheet } of g.calibrations)
    for (const item of sheet.ready) {
      const { measure } = item;
      const same = items.findIndex((x) =>
        measure ? x.measure?.kind === measure.kind : !x.measure && x.ask === item.ask,
      );
      const known = items[same];
      if (known?.measure && measure)
        items[same] = { ...known, measure: strictest(known.measure, measure) };
      else if (!known)
        items.push(
          items.some((x) => x.id === item.id) ? { ...item, id: `${id}-${item.id}` } : item,
        );
    }
  const again = g.calibrations.some((c) => c.sheet.prove.some((i) => i.measure?.kind === "rescan"));
  if (again && !items.some((i) => i.measure?.kind === "scan")) items.unshift(ASKED_SCAN);
  const floor = items.findIndex((i) => i.measure?.kind === "floor");
  if (floor >= 0) items[floor] = atAllStands(items[floor]!, g);
  if (floor >= 0) return byPlace(items);
  const targets = g.calibrations.flatMap((c) => targetsOf(c.sheet));
  const sure = targets.every((target) => {
    const { heightMm } = target.tolerance;
    if (heightMm === undefined || target.frame) return true;
    const { sigma } = floorStep({ target, vehicle: g.vehicle });
    return insideChance(0, sigma, heightMm) >= DEFAULT_THRESHOLDS.setChance;
  });
  return byPlace(sure ? items : [...items, atAllStands(ASKED_FLOOR, g)]);
}

/**
 * What is to be checked at a stage: before the work for the job as a whole, and the floor where the
 * sheets forgot it; after it for one calibration.
 */
export const itemsOf = (
  g: Pick<CalibrationGround, "sheet" | "vehicle" | "calibrations">,
  stage: "ready" | "prove",
): CheckItem[] => (stage === "ready" ? readyItems(g) : g.sheet.prove);

/** One item of a stage by its id. */
export const itemOf = (
  g: Pick<CalibrationGround, "sheet" | "vehicle" | "calibrations">,
  stage: "ready" | "prove",
  id: string,
): CheckItem | undefined => itemsOf(g, stage).find((i) => i.id === id);

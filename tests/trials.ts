import { randomFrom, seedFrom } from "@/core/math/random";
import {
  agree,
  decideByThird,
  nextAct,
  solveSetOut,
  type Judged,
  type SetOutEntry,
  type SetOutPlan,
  type TouchKind,
} from "@/core/setout";
import { act, measure, openBay, type BenchWorld } from "@/devices/bench/world";

/**
 * Simulated set-ups for tests and benchmarks: how many readings a way of choosing them takes to a
 * sure verdict.
 */
export type Chooser = (judged: Judged, read: readonly string[]) => string | null;

export const byAdvice: Chooser = ({ next }) =>
  next.kind === "read" ? next.candidate.slot.id : null;
export const inOrder =
  (order: readonly string[]): Chooser =>
  (_, read) =>
    order[read.length % order.length] ?? null;
export const atRandom = (seed: string, order: readonly string[]): Chooser => {
  const random = randomFrom(seedFrom(seed));
  return () => order[Math.floor(random() * order.length)] ?? null;
};

const MOST = 40;

/**
 * A whole set-out by the advice alone, as careful hands do it, in one way, with one slip of so many
 * millimetres.
 */
export type SetOutTrial = {
  end: "set" | "stuck" | "too-long";
  readings: number;
  leftOut: number;
  message: string;
  /** The bay as it was left, and what was known of it then. */
  world: BenchWorld;
  judged: Judged;
};

/**
 * Follows the advice to the end: reads, moves, reads again, decides between two by a third, leaves
 * out what it is told to.
 *
 * @param slip which reading is misread, by how much; the first time it is taken and never again
 */
export function followAdvice(
  plan: SetOutPlan,
  seed: string,
  slip: { slotId: string; mm: number } | null,
): SetOutTrial {
  let world = openBay(seed, plan);
  let entries: SetOutEntry[] = [];
  let [readings, leftOut, seatings, slipped] = [0, 0, 0, false];
  const drop = (ids: readonly string[]): void =>
    void (entries = entries.filter((e) => !ids.includes(e.id)));
  let judged = nextAct(solveSetOut(plan, entries));
  const ended = (end: SetOutTrial["end"], message = ""): SetOutTrial => ({
    end,
    readings,
    leftOut,
    message,
    world,
    judged,
  });
  for (let n = 0; n < 90; n++) {
    judged = nextAct(solveSetOut(plan, entries));
    const { next } = judged;
    if (next.kind === "settle") return ended("set");
    if (next.kind === "move") {
      const { predicted: _, ...move } = next.move;
      world = act(world, { id: `m${n}`, kind: "move", move });
      entries.push({
        kind: "move",
        id: `m${n}`,
        move,
        rest: next.rest.map(({ predicted: __, ...m }) => m),
      });
      continue;
    }
    if (next.kind === "stuck") {
      if (!next.leaveOut) return ended("stuck", next.message);
      drop(next.leaveOut.ids);
      leftOut++;
      continue;
    }
    const { slot, sigma, anew } = next.candidate;
    if (anew) seatings++;
    const off = slip && slot.id === slip.slotId && !slipped ? slip.mm : 0;
    if (off) slipped = true;
    const shown = measure(world, slot.id, readings, null, seatings) + off;
    const byId = (id: string) => judged.solution.readings.find((r) => r.id === id)!;
    if (next.decides)
      drop(
        decideByThird([byId(next.decides[0]), byId(next.decides[1])], shown, sigma).map(
          (d) => d.strike,
        ),
      );
    const old = next.again && byId(next.again);
    if (old && !agree(old.shown, old.sigma, shown, sigma)) drop([old.id]);
    entries.push({ kind: "reading", id: `r${n}`, slotId: slot.id, shown, sigma, anew });
    readings++;
  }
  return ended("too-long");
}

/** Reads until the verdict is sure (set, or plainly to be moved). */
export function readUntilSure(
  world: BenchWorld,
  start: readonly SetOutEntry[],
  choose: Chooser,
  tag: string,
): { judged: Judged; entries: SetOutEntry[]; readings: number } {
  const { plan } = world;
  const entries = [...start];
  const read: string[] = [];
  let judged = nextAct(solveSetOut(plan, entries));
  while (judged.verdict.kind === "read" && read.length < MOST) {
    const slotId = choose(judged, read);
    const candidate = slotId && judged.candidates.find((c) => c.slot.id === slotId);
    if (!candidate) break;
    read.push(slotId);
    const nth = entries.filter((e) => e.kind === "reading" && e.slotId === slotId).length;
    entries.push({
      kind: "reading",
      id: `${tag}${read.length}`,
      slotId,
      shown: measure(world, slotId, nth),
      sigma: candidate.sigma,
    });
    judged = nextAct(solveSetOut(plan, entries));
  }
  return { judged, entries, readings: read.length };
}

/** A board that was set with care: rolled in, moved by the advice and proved. */
export function setBoard(
  plan: SetOutPlan,
  seed: string,
): { world: BenchWorld; entries: SetOutEntry[] } | null {
  let world = openBay(seed, plan);
  let entries: SetOutEntry[] = [];
  for (let n = 0; n < 40; n++) {
    const at = readUntilSure(world, entries, byAdvice, `s${n}-`);
    entries = at.entries;
    if (at.judged.next.kind === "settle") return { world, entries };
    if (at.judged.next.kind !== "move") return null;
    const { predicted: _, ...move } = at.judged.next.move;
    const id = `m${n}`;
    world = act(world, { id, kind: "move", move });
    entries.push({
      kind: "move",
      id,
      move,
      rest: at.judged.next.rest.map(({ predicted: __, ...m }) => m),
    });
  }
  return null;
}

export type TouchTrial = { readings: number; verdict: "set" | "move" | "read"; movedMm: number };

/** Something is touched after the board was set; the advice re-checks until it is sure again. */
export function recheck(
  set: { world: BenchWorld; entries: SetOutEntry[] },
  touch: TouchKind,
  id: string,
): TouchTrial {
  const world = act(set.world, { id, kind: "touch", touch });
  const before = set.world.stand.base;
  const after = world.stand.base;
  const entries: SetOutEntry[] = [...set.entries, { kind: "touch", id, touch }];
  const at = readUntilSure(world, entries, byAdvice, `${id}-`);
  return {
    readings: at.readings,
    verdict: at.judged.verdict.kind,
    movedMm: Math.hypot(after.xMm - before.xMm, after.yMm - before.yMm),
  };
}

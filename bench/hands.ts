import { randomFrom, seedFrom } from "@/core/math/random";
import {
  agree,
  decideByThird,
  LAST_ACTS,
  nextAct,
  solveSetOut,
  type Judged,
  type Move,
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

/** The reading that is asked for, or would be once what is to be done first is done. */
export const byAdvice: Chooser = ({ next, candidates }) =>
  (next.kind === "read" ? next.candidate.slot.id : candidates.find((c) => !c.anew)?.slot.id) ??
  null;
export const inOrder =
  (order: readonly string[]): Chooser =>
  (_, read) =>
    order[read.length % order.length] ?? null;
export const atRandom = (seed: string, order: readonly string[]): Chooser => {
  const random = randomFrom(seedFrom(seed));
  return () => order[Math.floor(random() * order.length)] ?? null;
};

const MOST = 40;

/** What hands do at a stand: they read an instrument, and they move what they are told to. */
export type Hands = {
  /**
   * @param nth how many readings were taken before
   * @param anew what it goes through is seated anew first
   */
  read: (slotId: string, nth: number, anew: boolean) => number;
  move: (id: string, move: Move) => void;
  /** What the hands do to the stand besides: lock it, hang the board. */
  touch: (id: string, touch: TouchKind) => void;
};

/** How a set-out by the advice alone ended. */
export type Walk = {
  end: "set" | "stuck" | "too-long";
  readings: number;
  moves: number;
  leftOut: number;
  seconds: number;
  message: string;
  judged: Judged;
};

/** What a hand on the stand costs, seconds: walking there, loosening, moving, locking. */
const MOVING = 25;
/** Taking a clamp off and seating it anew, seconds. */
const SEATING = 25;
const MOST_ACTS = 90;

/**
 * Follows the advice to the end as careful hands do it: reads, moves, reads again, decides between two
 * by a third, leaves out what it is told to.
 */
export function walkByAdvice(
  plan: SetOutPlan,
  hands: Hands,
  begun: readonly SetOutEntry[] = [],
): Walk {
  let entries = [...begun];
  let [readings, moves, leftOut, seconds] = [0, 0, 0, 0];
  // What was seated anew stays so, whatever becomes of the reading.
  const drop = (ids: readonly string[]): void =>
    void (entries = entries.flatMap((e): SetOutEntry[] =>
      !ids.includes(e.id)
        ? [e]
        : e.kind === "reading" && e.anew
          ? [{ kind: "seated", id: e.id, slotId: e.slotId }]
          : [],
    ));
  let judged = nextAct(solveSetOut(plan, entries));
  const ended = (end: Walk["end"], message = ""): Walk => ({
    end,
    readings,
    moves,
    leftOut,
    seconds,
    message,
    judged,
  });
  for (let n = 0; n < MOST_ACTS; n++) {
    judged = nextAct(solveSetOut(plan, entries));
    const { next } = judged;
    if (next.kind === "settle") return ended("set");
    if (next.kind === "move") {
      const { predicted: _, ...move } = next.move;
      hands.move(`m${n}`, move);
      moves++;
      seconds += MOVING;
      const rest = next.rest.map(({ predicted: __, ...m }) => m);
      entries.push({ kind: "move", id: `m${n}`, move, rest });
      continue;
    }
    if (next.kind === "finish") {
      for (const touch of next.acts) {
        hands.touch(`f${n}-${touch}`, touch);
        seconds += LAST_ACTS[touch].seconds;
        entries.push({ kind: "touch", id: `f${n}-${touch}`, touch });
      }
      continue;
    }
    if (next.kind === "stuck") {
      if (!next.leaveOut) return ended("stuck", next.message);
      drop(next.leaveOut.ids);
      leftOut++;
      continue;
    }
    const { slot, sigma, anew } = next.candidate;
    const shown = hands.read(slot.id, readings, anew);
    readings++;
    seconds += slot.seconds + (anew ? SEATING : 0);
    const byId = (id: string) => judged.solution.readings.find((r) => r.id === id)!;
    if (next.decides) {
      const [a, b] = next.decides;
      drop(decideByThird([byId(a), byId(b)], shown, sigma).map((d) => d.strike));
    }
    const old = next.again && byId(next.again);
    if (old && !agree(old.shown, old.sigma, shown, sigma)) drop([old.id]);
    entries.push({ kind: "reading", id: `r${n}`, slotId: slot.id, shown, sigma, anew });
  }
  return ended("too-long");
}

/** A walk in the simulated bay, and the bay as it was left. */
export type SetOutTrial = Walk & { world: BenchWorld };

/**
 * A whole set-out by the advice alone in one simulated bay.
 *
 * @param slip which reading is misread, by how much; the first time it is taken and never again
 * @param begun where it does not begin with a stand that was just rolled in
 */
export function followAdvice(
  plan: SetOutPlan,
  seed: string,
  slip: { slotId: string; mm: number } | null,
  begun?: { world: BenchWorld; entry: SetOutEntry },
): SetOutTrial {
  let world = begun?.world ?? openBay(seed, plan);
  let [seatings, slipped] = [0, false];
  const hands: Hands = {
    read: (slotId, nth, anew) => {
      if (anew) seatings++;
      const off = slip && slotId === slip.slotId && !slipped ? slip.mm : 0;
      if (off) slipped = true;
      return measure(world, slotId, nth, null, seatings) + off;
    },
    move: (id, move) => void (world = act(world, { id, kind: "move", move })),
    touch: (id, touch) => void (world = act(world, { id, kind: "touch", touch })),
  };
  const walk = walkByAdvice(plan, hands, begun ? [begun.entry] : []);
  return { ...walk, world };
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
    const { next } = at.judged;
    if (next.kind === "settle") return { world, entries };
    if (next.kind === "finish") {
      for (const touch of next.acts) {
        const id = `f${n}-${touch}`;
        world = act(world, { id, kind: "touch", touch });
        entries.push({ kind: "touch", id, touch });
      }
      continue;
    }
    if (next.kind !== "move") return null;
    const { predicted: _, ...move } = next.move;
    const id = `m${n}`;
    world = act(world, { id, kind: "move", move });
    entries.push({
      kind: "move",
      id,
      move,
      rest: next.rest.map(({ predicted: __, ...m }) => m),
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

import { predictReadings, type Reading } from "@/core/survey";
import { degToRad } from "@/core/units";
import { centredProbability } from "./chance";
import type { Instrument } from "./instrument";
import type { Slot } from "./slot";
import { readingSigma } from "./slots";
import { SEAT_SECONDS, type Playable } from "./ahead";
import { seatSigma } from "./causes";
import { sharing } from "./history";
import { carries, type Witness } from "./reliability";
import { isWalked } from "./schools";
import { wallCauses, wallSigmas } from "./walls";
import { partIndex, proofHalfWidths } from "./proof";
import type { SetOutSolution } from "./solve";
import { insideChance, scalarErrors, type Verdict } from "./verdict";

/** A reading that could be taken next, with what it is expected to be worth. */
export type Candidate = {
  slot: Slot;
  instrument: Instrument;
  /** What it should show if the present solution holds, in the slot's own terms. */
  expected: number;
  sigma: number;
  /** What it goes through is to be seated anew first: a repeat through the same seat is no witness. */
  anew: boolean;
  /** How much it would shorten what can hide, as a sum of logarithms; 0 while nobody asks for that. */
  finds: number;
  /** As it is played through when looking ahead. */
  play: Playable;
  /**
   * Chance of a confident verdict after it, against now (as the chance a nulled board would have).
   */
  chanceAfter: number;
  /** ln(chance after / now) per second of work: the order of the list. */
  worth: number;
  why: string;
};

/** The names of what readings have in common in a network. */
const causesKnown = (s: SetOutSolution): Set<string> =>
  new Set((s.network.nuisances ?? []).map((n) => n.id));

/** The instrument a slot is read with. */
export const instrumentFor = (s: SetOutSolution, slot: Slot): Instrument | undefined =>
  s.plan.instruments.find((i) => i.kind === slot.instrument);

/**
 * A slot's reading, before it is taken, as the network sees it; null for what is no part of it. A
 * seat or a tape that nothing was read with yet adds its own uncertainty to the reading's instead.
 */
function observationOf(s: SetOutSolution, slot: Slot, known: ReadonlySet<string>): Reading | null {
  const { in: of } = slot.observes;
  if (of === "pitch" || of === "roll") {
    const lean = s.leans[of];
    const minus = slot.against && known.has(slot.against.id) ? { minus: slot.against.id } : {};
    return lean ? { id: slot.id, kind: "cause", of: lean, ...minus, value: 0, sigma: 1 } : null;
  }
  if (slot.observes.in !== "plan") return null;
  const mate = slot.mate === undefined ? undefined : s.mates[slot.mate];
  const bare = slot.observes.observation(slot.id, 0, 1, s.body, mate);
  const seat = slot.seat && s.seats[slot.seat.id];
  return sharing(
    bare,
    slot,
    seat !== undefined && known.has(seat) ? seat : undefined,
    s.plan.severalOfAKind ? instrumentFor(s, slot)?.id : undefined,
    known,
  );
}

/** What a reading is uncertain by that no repeat of it shares with it yet, mm or rad. */
const looseness = (
  s: SetOutSolution,
  slot: Slot,
  anew: boolean,
  known: ReadonlySet<string>,
): number =>
  slot.wall && !known.has(wallCauses(slot.wall.id).out)
    ? wallSigmas(slot.wall).outMm
    : seatLooseness(s, slot, anew, known);

const seatLooseness = (
  s: SetOutSolution,
  slot: Slot,
  anew: boolean,
  known: ReadonlySet<string>,
): number =>
  slot.seat && (anew || !known.has(s.seats[slot.seat.id] ?? ""))
    ? seatSigma(slot.seat)
    : slot.against && !known.has(slot.against.id)
      ? slot.against.sigma
      : 0;

/** What each slot would show with the board at `board` (default: at the present solution). */
export const predictedReadings = (s: SetOutSolution, board = s.board): Map<string, number> =>
  predictAt(s, board, s.slots).shown;

/** {@link predictedReadings}, and how what is read in the network hangs on its unknowns. */
function predictAt(
  s: SetOutSolution,
  board: SetOutSolution["board"],
  slots: readonly Slot[],
): { shown: Map<string, number>; gradients: Map<string, Float64Array> } {
  const known = causesKnown(s);
  const read = slots.flatMap((slot) => {
    const reading = observationOf(s, slot, known);
    return reading ? [{ slot, reading }] : [];
  });
  const { pitch, roll } = s.leans;
  const predictions = predictReadings(
    s.network,
    {
      points: s.adjustment?.points ?? [],
      bodies: [
        ...(s.adjustment?.bodies ?? []).filter((b) => b.id !== s.body),
        { id: s.body, ...board.pose, covariance: [] },
      ],
      nuisances: [
        ...(s.adjustment?.nuisances ?? []),
        ...(pitch ? [{ id: pitch, value: board.pitchRad }] : []),
        ...(roll ? [{ id: roll, value: board.rollRad }] : []),
      ],
    },
    read.map((r) => r.reading),
  );
  const shown = new Map<string, number>();
  const gradients = new Map<string, Float64Array>();
  read.forEach(({ slot }, i) => {
    gradients.set(slot.id, predictions[i]!.gradient);
    if (slot.observes.in === "plan") shown.set(slot.id, slot.toShown(predictions[i]!.value));
  });
  const scalars = {
    height: board.heightMm,
    pitch: board.pitchRad,
    roll: board.rollRad,
    rail: s.scalars.rail.value,
  };
  for (const slot of slots)
    if (slot.observes.in !== "plan") shown.set(slot.id, slot.toShown(scalars[slot.observes.in]));
  return { shown, gradients };
}

/**
 * Ranks the readings that could be taken now, best first.
 *
 * A reading's effect on the covariance is known before it is taken (it does not depend on its
 * value): a rank-one update of the joint covariance carried through the aim Jacobian. Its worth is
 * the rise of the logarithm of the chance a nulled board would have, per second of work. Early on,
 * when that chance is tiny, this is the gain of information relative to the tolerances; near the
 * end it is the gain of chance itself.
 *
 * When the knowledge suffices but some part was moved and not measured since, worth is the
 * information a candidate gives about that part; when some reading stands unchecked, it is the
 * redundancy a candidate lends to it.
 */
export function rankReadings(s: SetOutSolution, verdict: Verdict): Candidate[] {
  const now = s.plane;
  if (!s.adjustment || !now) return [];
  const { joint } = s.adjustment;
  const { covariance, order } = joint;
  const halves = now.quantities.map((q) => q.half);
  const scalars = scalarErrors(s);
  const walked = s.slots.filter((slot) => isWalked(s, slot));
  const { shown: expected, gradients } = predictAt(s, s.board, walked);
  const known = causesKnown(s);
  const planNow = centredProbability(now.nulled, now.covariance, halves, "rank");
  const scalarsNow = scalars.reduce((p, q) => p * insideChance(0, q.sigma, q.half), 1);
  const taken = (slot: Slot): number =>
    s.readings.filter((r) => r.slotId === slot.id && r.state === "counts").length;
  const wantsCheck = verdict.why === "unchecked";
  /** Covariance of every unknown with what has these derivatives; the covariance is symmetric. */
  const times = (row: ArrayLike<number>): Float64Array => {
    const out = new Float64Array(order);
    for (let k = 0; k < order; k++) {
      const v = row[k]!;
      if (v !== 0) for (let i = 0; i < order; i++) out[i]! += covariance[k * order + i]! * v;
    }
    return out;
  };
  const judged = now.jacobian.map(times);
  const hiding = verdict.weak.map((w) => Math.log(Math.max(1, carries(w))));

  const candidate = (slot: Slot, anew: boolean): Candidate[] => {
    const instrument = instrumentFor(s, slot);
    if (!instrument) return [];
    const shown = expected.get(slot.id)!;
    const own = readingSigma(instrument, slot, shown);
    const sigma = Math.hypot(own, looseness(s, slot, anew, known));
    const seconds = slot.seconds + (anew ? SEAT_SECONDS : 0);
    let chanceAfter: number;
    let proof = 0;
    let witness: Witness | null = slot.observes.in === "height" ? { of: "height", sigma } : null;
    const gradient = gradients.get(slot.id);
    // Seated anew, it shares nothing with what was read through the old seat.
    const seated = anew && slot.seat ? joint.index[s.seats[slot.seat.id]!] : undefined;
    const g = gradient && seated !== undefined ? without(gradient, seated) : gradient;
    if (g) {
      // A reading hangs on few of the unknowns.
      const rows: number[] = [];
      for (let k = 0; k < order; k++) if (g[k] !== 0) rows.push(k);
      const seen = (row: Float64Array): number => {
        let sum = 0;
        for (const k of rows) sum += g[k]! * row[k]!;
        return sum;
      };
      let gqg = 0;
      for (const i of rows) for (const k of rows) gqg += g[i]! * g[k]! * covariance[i * order + k]!;
      if (wantsCheck) witness = { of: "plan", gradient: g, with: times(g), variance: gqg, sigma };
      const gain = judged.map(seen);
      const after = now.covariance.map((row, i) =>
        row.map((v, j) => v - (gain[i]! * gain[j]!) / (sigma * sigma + gqg)),
      );
      chanceAfter = centredProbability(now.nulled, after, halves, "rank");
      for (const q of scalars) {
        chanceAfter *= insideChance(0, sigmaAfter(s, q, slot, sigma), q.half);
      }
      for (const i of s.owing.map(partIndex)) {
        const part = seen(times(s.aim!.jacobian[i]!));
        const before = s.aim!.covariance[i]![i]!;
        proof -= 0.5 * Math.log(1 - part ** 2 / (sigma * sigma + gqg) / before);
      }
    } else if (slot.observes.in === "rail") {
      const { variance } = s.scalars.rail;
      const gone = variance - 1 / (1 / variance + 1 / (sigma * sigma));
      const after = now.covariance.map((row, i) =>
        row.map((v, k) =>
          now.quantities[i]!.id === "across" && now.quantities[k]!.id === "across" ? v - gone : v,
        ),
      );
      chanceAfter = centredProbability(now.nulled, after, halves, "rank") * scalarsNow;
    } else {
      chanceAfter = planNow;
      for (const q of scalars) {
        chanceAfter *= insideChance(0, sigmaAfter(s, q, slot, sigma), q.half);
      }
    }
    const found = wantsCheck && witness ? finds(verdict, hiding, witness) : 0;
    const unproved = s.unproved.includes(slot.observes.in);
    let worth =
      Math.log(Math.max(chanceAfter, 1e-300) / Math.max(planNow * scalarsNow, 1e-300)) / seconds;
    // A repeat shares the eye and the hook with the first: a fresh reading is the better witness.
    if (taken(slot) > 0) worth /= 1 + taken(slot);
    if (verdict.why === "owing") worth = proof / (1 + taken(slot)) / seconds;
    else if (wantsCheck) worth = found / seconds / (slot.seat ? 1 : 1 + taken(slot) / 2);
    else if (unproved) worth += 1e-3;
    return [
      {
        slot,
        instrument,
        expected: shown,
        sigma: own,
        anew,
        finds: found,
        play: {
          id: slot.id,
          gradient: g ?? null,
          part: slot.observes.in,
          sigma: own,
          seat: slot.seat ? seatSigma(slot.seat) : 0,
          seconds: slot.seconds,
          taken: taken(slot),
        },
        chanceAfter,
        worth,
        why: reason(s, slot, unproved, verdict),
      },
    ];
  };
  return walked
    .flatMap((slot) => [
      ...candidate(slot, false),
      ...(wantsCheck && slot.seat && joint.index[s.seats[slot.seat.id] ?? ""] !== undefined
        ? candidate(slot, true)
        : []),
    ])
    .sort((a, b) => b.worth - a.worth);
}

/**
 * Standard deviation of a number's error after one more reading: what is not known of where it should
 * be stays.
 */
function sigmaAfter(
  s: SetOutSolution,
  q: ReturnType<typeof scalarErrors>[number],
  slot: Slot,
  sigma: number,
): number {
  if (q.id !== slot.observes.in) return q.sigma;
  const { variance } = s.scalars[q.id];
  return Math.sqrt(q.sigma ** 2 - variance + 1 / (1 / variance + 1 / sigma ** 2));
}

const without = (gradient: Float64Array, row: number): Float64Array => {
  const out = gradient.slice();
  out[row] = 0;
  return out;
};

/**
 * How much a reading would shorten what can hide: the sum over all hidden slips that carry too far
 * of the logarithm by which it carries less.
 */
const finds = ({ weak }: Verdict, before: readonly number[], witness: Witness): number =>
  weak.reduce((sum, w, i) => sum + before[i]! - Math.log(Math.max(1, carries(w, witness))), 0);

const PART_NAMES = { along: "distance", across: "place across", twist: "twist" } as const;

function reason(s: SetOutSolution, slot: Slot, unproved: boolean, verdict: Verdict): string {
  if (verdict.why === "unchecked")
    return "It would show a slip that could hide until now and carry the board out of its limits.";
  if (verdict.why === "owing")
    return `The ${s.owing.map((p) => PART_NAMES[p]).join(" and the ")} was moved and not measured since; this reading sees it best.`;
  if (unproved)
    return slot.observes.in === "plan"
      ? s.readings.some((r) => r.state === "doubt")
        ? "Nothing has been read since it moved."
        : "Its place is not read yet."
      : slot.observes.in === "rail"
        ? "Where it hangs on the rail is not read yet."
        : `The ${slot.observes.in} is not read yet.`;
  return "It raises the chance of a sure verdict most for the time it takes.";
}

/**
 * Moves below a tenth of the tolerance are not asked for; adjusters finer than that are left alone.
 */
export function worthwhile(s: SetOutSolution): { mm: number; rad: number } {
  const t = s.plan.target.tolerance;
  const [along, across, twist] = proofHalfWidths(s.plan);
  return {
    mm: Math.max(0.5, 0.12 * Math.min(along, across, t.heightMm ?? Infinity)),
    rad: Math.max(
      degToRad(0.02),
      0.12 * Math.min(twist, degToRad(Math.min(t.pitchDeg ?? 90, t.rollDeg ?? 90))),
    ),
  };
}

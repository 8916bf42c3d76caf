import { degToRad, formatNumber } from "@/core/units";
import { lookAhead, LONG, type Ahead } from "./ahead";
import { adjustersOf, boosterMove, planMoves, type Move, type BoardState } from "./moves";
import { LAST_ACTS } from "./last-acts";
import type { LastActId } from "./last-act-ids";
import { boosterFor, withBooster, type PlanPose, type Stand } from "./stand";
import { instrumentFor, predictedReadings, rankReadings, worthwhile, type Candidate } from "./next";
import type { Slot } from "./slot";
import { seesToe } from "./causes";
import { isByHand } from "./hands";
import { onFloor } from "./on-floor";
import { datumLine, floorStep, wantedRail } from "./plan";
import { proofHalfWidths } from "./proof";
import type { SetOutSolution } from "./solve";
import { disagreeing, likelyCause } from "./suspicion";
import { insideChance, judgeSetOut, scalarErrors, type Verdict } from "./verdict";

declare module "./on-floor" {
  interface FloorParts {
    /** How hands bring a target on the floor to its place. */
    drawMoves: (
      target: SetOutSolution["plan"]["target"],
      now: BoardState,
      wanted: PlanPose,
      least: { mm: number; rad: number },
    ) => Move[];
  }
}

/** A move with the readings the technician will see when it is right. */
export type ProposedMove = Move & { predicted: { slot: Slot; shown: number }[] };

/** The one thing to do next at the stand. */
export type NextAct =
  /**
   * Take this reading; `again` is the suspect reading it replaces, `decides` the two of its own
   * slot it decides between.
   */
  | { kind: "read"; candidate: Candidate; again: string | null; decides?: [string, string] }
  | { kind: "move"; move: ProposedMove; rest: ProposedMove[] }
  /** Finish the stand: lock it, hang the board; what that moved the readings after it say. */
  | { kind: "finish"; acts: LastActId[] }
  /** The board is set: print it to the slip. */
  | { kind: "settle" }
  /**
   * No reading helps: what stands in the way, and, where there is one, the reading that could be
   * left out.
   */
  | { kind: "stuck"; message: string; leaveOut?: { ids: string[]; name: string; reason: string } };

export type Judged = {
  solution: SetOutSolution;
  verdict: Verdict;
  candidates: Candidate[];
  next: NextAct;
};

/**
 * A quantity this close to its place, as a share of its tolerance, is left alone: a hand on it does
 * more harm.
 */
const LEAVE_ALONE = 0.3;
const LEAVE_PLACE = 0.25;

const SCALE = "height-scale";
const hasFor = (s: SetOutSolution, slot: Slot): boolean => instrumentFor(s, slot) !== undefined;
/** A height that is known no better than this was never read, mm. */
const HEIGHT_UNKNOWN = 60;

/**
 * The first act at a stand: cranked to the sheet's height by its own scale, before anything is read.
 * Null where the stand has no scale, or the height was read.
 */
function crankFirst(s: SetOutSolution): ProposedMove | null {
  const { tolerance } = s.plan.target;
  if (tolerance.heightMm === undefined || s.readings.length > 0) return null;
  if (Math.sqrt(s.scalars.height.variance) < HEIGHT_UNKNOWN) return null;
  const after = { ...s.board, heightMm: s.target.heightMm };
  const upMm = after.heightMm - s.board.heightMm;
  const { mmPerTurn } = s.plan.stand.crank;
  const move = withReadings(s, { kind: "crank", upMm, turns: upMm / mmPerTurn, after });
  return move.kind === "crank" && move.until ? move : null;
}

/** Whether the stand's own scale posts what it shows while it is cranked. */
const isWatched = (s: SetOutSolution): boolean => {
  const slot = s.slots.find((x) => x.id === SCALE);
  return slot !== undefined && instrumentFor(s, slot)?.live === "posts";
};

/**
 * The moves that null the present error, with predicted readings; empty when nothing is worth
 * moving.
 */
export const proposeMoves = (s: SetOutSolution, least = worthwhile(s)): ProposedMove[] =>
  plannedMoves(s, least).map((move) => withReadings(s, move));

/** The same, without what the readings will show. */
function plannedMoves(s: SetOutSolution, least = worthwhile(s)): Move[] {
  const t = s.plan.target.tolerance;
  const near = (error: number, half: number): boolean => Math.abs(error) < LEAVE_ALONE * half;
  const tilt = (part: "pitchRad" | "rollRad", toleranceDeg: number | undefined): number =>
    toleranceDeg === undefined || near(s.board[part] - s.target[part], degToRad(toleranceDeg))
      ? s.target[part]
      : s.board[part];
  const now = {
    ...s.board,
    pitchRad: tilt("pitchRad", t.pitchDeg),
    rollRad: tilt("rollRad", t.rollDeg),
  };
  if (isByHand(s.plan.target)) {
    // A mat drawn by less than this only takes up its own folds.
    const coarse = { mm: Math.max(3, least.mm), rad: least.rad };
    return onFloor().drawMoves(s.plan.target, s.board, s.target.pose, coarse);
  }
  const heightMm = near(now.heightMm - s.target.heightMm, t.heightMm ?? Infinity)
    ? now.heightMm
    : s.target.heightMm;
  const rail = railMoves(s, least.mm);
  // A beam that carries other boards is not touched for what the rail puts right.
  const beam =
    rail.length > 0 && beamStandsWell(s)
      ? []
      : planMoves(s.plan.stand, s.standState, now, { ...s.target, pose: goal(s), heightMm }, least);
  return [...beam, ...rail];
}

/**
 * Where the board is to go: its place, but for what is so near that a hand on it would do more harm
 * than good.
 */
function goal(s: SetOutSolution): PlanPose {
  const { aim, board, target, frame, adjustment } = s;
  if (!aim || !adjustment) return target.pose;
  const [along, across, twist] = proofHalfWidths(s.plan);
  const line = datumLine(frame, adjustment.points, adjustment.nuisances);
  const [u, v] = [Math.cos(line.headingRad), Math.sin(line.headingRad)];
  const [dx, dy] = [target.pose.xMm - board.pose.xMm, target.pose.yMm - board.pose.yMm];
  const far = (by: number, half: number): number => (Math.abs(by) < LEAVE_PLACE * half ? 0 : by);
  const ahead = far(u * dx + v * dy, along);
  const left = far(-v * dx + u * dy, across);
  return {
    xMm: board.pose.xMm + u * ahead - v * left,
    yMm: board.pose.yMm + v * ahead + u * left,
    headingRad:
      Math.abs(aim.twistRad) < LEAVE_PLACE * twist ? board.pose.headingRad : target.pose.headingRad,
  };
}

/** The same, however small. */
function everyMove(s: SetOutSolution): ProposedMove[] {
  const { plan, target } = s;
  const t = plan.target.tolerance;
  // A lean that nothing limits is counted with, not levelled.
  const board = {
    ...s.board,
    ...(t.pitchDeg === undefined ? { pitchRad: target.pitchRad } : {}),
    ...(t.rollDeg === undefined ? { rollRad: target.rollRad } : {}),
  };
  const moves = isByHand(plan.target)
    ? onFloor().drawMoves(plan.target, board, target.pose, { mm: 1, rad: 1e-4 })
    : [...planMoves(plan.stand, s.standState, board, target), ...railMoves(s, 0.2)];
  return moves.map((m) => withReadings(s, m));
}

/** Whether the beam itself is so near to its place that only its board is to be moved. */
function beamStandsWell(s: SetOutSolution): boolean {
  const [along, across, twist] = proofHalfWidths(s.plan);
  const { pose } = s.target;
  const [dx, dy] = [s.board.pose.xMm - pose.xMm, s.board.pose.yMm - pose.yMm];
  const near = (error: number, half: number): boolean => Math.abs(error) < half / 2;
  return (
    near(Math.hypot(dx, dy), Math.min(along, across)) &&
    near(s.aim?.twistRad ?? Infinity, twist) &&
    scalarErrors(s).every((q) => near(q.error, q.half))
  );
}

/** Along the rail only what the beam's own place does not explain; nothing where there is no rail. */
function railMoves(s: SetOutSolution, leastMm: number): Move[] {
  if (!s.plan.target.beam) return [];
  const leftMm = wantedRail(s.plan.target) - s.scalars.rail.value;
  return Math.abs(leftMm) < leastMm ? [] : [{ kind: "rail", leftMm, after: s.board }];
}

function withReadings(s: SetOutSolution, move: Move): ProposedMove {
  const shown = predictedReadings(s, move.after);
  // Whoever cranks looks at the scale: it is told what to show.
  const scale = move.kind === "crank" ? shown.get(SCALE) : undefined;
  const watched =
    move.kind === "crank" &&
    scale !== undefined &&
    s.slots.some((x) => x.id === SCALE && hasFor(s, x))
      ? { ...move, until: { slotId: SCALE, shown: scale } }
      : move;
  return { ...watched, predicted: s.slots.map((slot) => ({ slot, shown: shown.get(slot.id)! })) };
}

/**
 * After this many readings of everything, one more of the same would only average the same hands.
 */
const ENOUGH = 3;

const timesRead = (s: SetOutSolution, slotId: string): number =>
  s.readings.filter((r) => r.slotId === slotId && r.state === "counts").length;

/** A stand whose crank does not come to the sheet's height, with any booster it has. */
export const outOfReach = (stand: Stand, heightMm: number): string => {
  const { minMm, maxMm } = withBooster(stand, null).crank;
  const most = maxMm + Math.max(0, ...(stand.boosters ?? []).map((b) => b.addsMm));
  return `${stand.name} holds a board from ${formatNumber(minMm)} to ${formatNumber(most)} mm; the sheet wants ${formatNumber(heightMm)} mm. Use another stand, or enter its booster under Kit.`;
};

/**
 * Names the quantity the kit cannot pin down.
 *
 * @param tried whether something would help, and was read as often as it can
 */
function exhausted(s: SetOutSolution, tried: boolean): string {
  const { heightMm } = s.plan.target.tolerance;
  const floor = floorStep(s.plan).sigma;
  if (heightMm !== undefined && insideChance(0, floor, heightMm) < s.plan.thresholds.setChance)
    return `The height counts from the car’s plane, and how the floor falls to the stand is known to ± ${formatNumber(floor, 1)} mm only: read the floor anew under Ready.`;
  const names = ["distance", "place across", "twist"];
  const sizes = s.aim!.covariance.map((row, i) => Math.sqrt(row[i]!) / proofHalfWidths(s.plan)[i]!);
  const worst = names[sizes.indexOf(Math.max(...sizes))]!;
  const why = tried
    ? `Everything that could help was read ${ENOUGH} times, and the ${worst} is still not known well enough for this sheet.`
    : `The ${worst} is not known well enough for this sheet, and nothing that can be read this way would tell much more of it: try another way of setting out.`;
  return `${why} The ${s.plan.target.datum === "centreline" ? "badge places" : "rear hub places"} or the instruments are too uncertain: measure them better, or use a finer instrument.`;
}

/**
 * Which reading settles a contradiction: a third where two of one slot disagree; the likeliest
 * culprit that was read only once; when all of those were read twice and stood by it, a reading not
 * taken yet, which takes sides. When there is none, the likely cause is named, and the reading it
 * touches can be left out.
 */
function settleSuspicion(s: SetOutSolution, verdict: Verdict, candidates: Candidate[]): NextAct {
  const slotOf = (id: string): string => s.readings.find((r) => r.id === id)!.slotId;
  const of = (slotId: string): Candidate | undefined =>
    candidates.find((c) => c.slot.id === slotId);
  const pair = disagreeing(s, verdict.suspects);
  const third = pair && of(pair[0].slotId);
  if (pair && third)
    return {
      kind: "read",
      candidate: {
        ...third,
        anew: third.slot.seat !== undefined,
        why: "Two readings of it disagree. Seat anew what is seated, then read a third: it decides which of them stands.",
      },
      again: null,
      decides: [pair[0].id, pair[1].id],
    };
  const standing = new Set(s.readings.flatMap((r) => (r.state === "counts" ? [r.id] : [])));
  const again = verdict.suspects.find((id) => standing.has(id) && timesRead(s, slotOf(id)) === 1);
  const candidate = again && of(slotOf(again));
  if (candidate)
    return {
      kind: "read",
      candidate: { ...candidate, anew: candidate.slot.seat !== undefined },
      again,
    };
  const suspect = s.slots.find((x) => x.id === slotOf(verdict.suspects[0]!))!;
  // It was taken before the carrier was disturbed: nobody can take it again where it was taken.
  if (!standing.has(verdict.suspects[0]!))
    return {
      kind: "stuck",
      message: `${suspect.name}, read before the stand was last moved or touched, stands against what was read since. Leave it out and go on with the rest.`,
      leaveOut: {
        ids: [verdict.suspects[0]!],
        name: suspect.name,
        reason:
          "Left out: read before the stand was disturbed, it stands against what was read since",
      },
    };
  const witness = candidates.find(
    (c) => c.slot.observes.in === suspect.observes.in && timesRead(s, c.slot.id) === 0,
  );
  if (witness)
    return {
      kind: "read",
      candidate: {
        ...witness,
        why: "The readings contradict each other and each was read twice; this one takes sides.",
      },
      again: null,
    };
  const ids = s.readings
    .filter((r) => r.slotId === suspect.id && r.state === "counts")
    .map((r) => r.id);
  const cause = likelyCause(suspect);
  return {
    kind: "stuck",
    message: `${suspect.name} was read again and stands against all the others. Likely ${cause}. Put it right and read it anew, or leave it out and go on with the rest.`,
    leaveOut: {
      ids,
      name: suspect.name,
      reason: `Left out: it stands against all the others; likely ${cause}`,
    },
  };
}

/** Judges a solution and names the next physical act. */
export function nextAct(solution: SetOutSolution): Judged {
  const judged = judgeSetOut(solution);
  const ranked = atHand(solution, judged, rankReadings(solution, judged));
  const ahead = playAhead(solution, judged, ranked);
  // Reading on is shorter than a move now.
  const first =
    judged.kind === "move" && ahead?.first === "read"
      ? ranked.find((c) => c.slot.id === ahead.slotId && !c.anew)
      : undefined;
  const helpless = judged.why === "unchecked" && ranked.every((c) => c.finds < LEAST_FOUND);
  const verdict: Verdict = first
    ? { ...judged, kind: "read", why: "not-known" }
    : helpless || judged.kind === "set"
      ? { ...judged, kind: "set", why: "in-tolerance", assumes: assumed(solution, judged) }
      : judged;
  const candidates = first ? [first, ...ranked.filter((c) => c !== first)] : ranked;
  const read = (): NextAct => {
    const best = candidates[0];
    const useful = candidates.filter((c) => c.chanceAfter > verdict.chanceIfNulled + USEFUL);
    if (
      judged.why === "not-known" &&
      best &&
      useful.every((c) => timesRead(solution, c.slot.id) >= ENOUGH)
    )
      return { kind: "stuck", message: exhausted(solution, useful.length > 0) };
    return best
      ? { kind: "read", candidate: best, again: null }
      : {
          kind: "stuck",
          message:
            solution.problem ??
            "No instrument in the kit can read what is missing. Add one under Kit.",
        };
  };
  const decide = (): NextAct => {
    const { stand, target } = solution.plan;
    const booster = isByHand(target) ? null : boosterFor(stand, solution.target.heightMm);
    if (booster === undefined)
      return { kind: "stuck", message: outOfReach(stand, solution.target.heightMm) };
    const crank = isByHand(target) ? null : crankFirst(solution);
    if (solution.toMarks) {
      const zero: Move = { kind: "zero", adjusters: adjustersOf(stand), after: solution.board };
      // A crank that is watched on an instrument of its own gets a card of its own.
      const along =
        crank && booster?.id === stand.fitted?.id && !isWatched(solution) ? [crank] : [];
      return { kind: "move", move: withReadings(solution, zero), rest: along };
    }
    if (booster?.id !== stand.fitted?.id)
      return {
        kind: "move",
        move: withReadings(solution, boosterMove(stand, solution.board, booster?.id ?? null)),
        rest: [],
      };
    if (
      target.upright === "vehicle-plane" &&
      !solution.plan.floorSlopeRad &&
      verdict.why === "not-known"
    )
      return {
        kind: "stuck",
        message:
          "The board is to stand square to the vehicle’s plane, and nobody knows how that lies: measure the floor under Ready.",
      };
    if (solution.restMoves.length > 0) {
      const [move, ...rest] = solution.restMoves.map((m) => withReadings(solution, m));
      return { kind: "move", move: move!, rest };
    }
    if (crank) return { kind: "move", move: crank, rest: [] };
    if (verdict.why === "suspect") return settleSuspicion(solution, verdict, candidates);
    if (verdict.why === "not-known" && verdict.lacksFloor)
      return {
        kind: "stuck",
        message:
          "Nobody knows how the floor falls between the car and the stand, and the height counts from the car’s plane: measure the floor under Ready.",
      };
    if (toFinish(solution, verdict, candidates)) return { kind: "finish", acts: solution.lacking };
    if (verdict.kind === "set") return { kind: "settle" };
    if (verdict.kind === "move") {
      const moves = proposeMoves(solution);
      // Errors can be outside together while each is too small to be worth a move of its own.
      const [move, ...rest] = moves.length > 0 ? moves : everyMove(solution);
      if (move) return { kind: "move", move, rest };
    }
    return read();
  };
  return { solution, verdict, candidates, next: decide() };
}

/**
 * The readings with those last for which the board had to be taken off again, as long as another one
 * helps.
 */
function atHand(s: SetOutSolution, verdict: Verdict, ranked: Candidate[]): Candidate[] {
  if (!s.laserOff) return ranked;
  const [off, on] = [ranked.filter(byLaser), ranked.filter((c) => !byLaser(c))];
  const helps = (c: Candidate): boolean =>
    timesRead(s, c.slot.id) < ENOUGH &&
    (c.chanceAfter > verdict.chanceIfNulled + USEFUL || c.finds >= LEAST_FOUND);
  if (off.length > 0 && !on.some(helps)) return ranked;
  return [
    ...on,
    ...off.map((c) => ({
      ...c,
      why: `Take the board off and put the laser in its place first. ${c.why}`,
    })),
  ];
}

const byLaser = (c: Candidate): boolean => c.slot.instrument === "laser";

/** A reading that raises the chance by less than this is not worth taking for it. */
const USEFUL = 0.002;

/** From this chance on a stand is likely to stay where it is; what proves it is read afterwards. */
const LIKELY_THERE = 0.3;

/**
 * Whether the stand is to be finished now: it disturbs, so it is done before the readings that prove,
 * as soon as nothing has to be moved any more; but not while the laser is wanted in the board's place.
 */
function toFinish(s: SetOutSolution, verdict: Verdict, candidates: readonly Candidate[]): boolean {
  if (s.lacking.length === 0 || verdict.kind === "move") return false;
  if (verdict.kind === "set") return true;
  const shared =
    s.plan.stand.laserOn === "hook" && candidates[0] !== undefined && byLaser(candidates[0]);
  // It was just moved, and all of it is to be read again: then whatever else disturbs it comes first.
  const unread = s.unproved.includes("plan") && s.readings.some((r) => r.state === "doubt");
  return !shared && (unread || verdict.chance >= LIKELY_THERE) && plannedMoves(s).length === 0;
}

/** A reading that shortens what can hide by less than this (a logarithm) is not worth anybody's time. */
const LEAST_FOUND = 0.03;

/**
 * What a "set" has to take for granted, by name: readings that nothing checks, and a printed toe where
 * no light from the wheels and no rolling said where the car drives.
 */
function assumed(s: SetOutSolution, { unchecked }: Verdict): string[] {
  const slotOf = (id: string): Slot | undefined =>
    s.slots.find((x) => x.id === s.readings.find((r) => r.id === id)?.slotId);
  const seen = s.readings.some((r) => {
    const kind = slotOf(r.id)?.instrument;
    return kind !== undefined && seesToe(kind);
  });
  const printed = s.frame.turnBy && s.plan.rearToeSigmaRad === undefined && !seen;
  return [
    ...new Set(unchecked.flatMap((id) => slotOf(id)?.name ?? [])),
    ...(printed ? ["the rear toe as printed"] : []),
  ];
}

/** What is likely to lead to "set" soonest; null where it cannot be told, or nothing is to choose. */
function playAhead(
  s: SetOutSolution,
  verdict: Verdict,
  candidates: readonly Candidate[],
): Ahead | null {
  if (!s.adjustment || !s.plane || verdict.kind !== "move") return null;
  const slots = candidates.filter((c) => !c.anew).map((c) => c.play);
  // Only a crank by its scale is played otherwise than it is planned.
  const moves = plannedMoves(s).map((m) => (m.kind === "crank" ? withReadings(s, m) : m));
  return lookAhead(s, slots, moves);
}

/** After a move at least the line and the distance are read again. */
export const PROVING = 3;

/**
 * How long it is likely to be from here until it is set, seconds; null where nobody can say yet. It is
 * no part of the judgement: whoever shows it may work it out when there is time.
 */
export function secondsToSet({ solution: s, verdict, candidates, next }: Judged): number | null {
  if (next.kind === "settle") return 0;
  if (!s.adjustment || !s.plane || next.kind === "stuck" || verdict.why === "suspect") return null;
  const slots = candidates.filter((c) => !c.anew).map((c) => c.play);
  const moves = next.kind === "move" ? [next.move, ...next.rest] : proposeMoves(s);
  const { seconds } = lookAhead(s, slots, moves, PROVING);
  const last = s.lacking.reduce((sum, id) => sum + LAST_ACTS[id].seconds, 0);
  return seconds < LONG ? seconds + last : null;
}

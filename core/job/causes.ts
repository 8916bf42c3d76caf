import {
  BOARD_QUANTITIES,
  foretellAim,
  rankCauses,
  UNREAD_ROLL,
  type BoardQuantity,
  type CauseEvidence,
  type Looked,
  type RankedCause,
} from "@/core/guide";
import { isByHand, nominalTarget, quantitiesOf, type QuantityId } from "@/core/setout";
import { wantsThrust, type Disturber } from "@/core/sheet";
import { degToRad } from "@/core/units";
import { bodyBias, cameraOf, glassOf } from "./foretold";
import type { CalibrationGround } from "./ground";
import { itemsOf } from "./items";
import { checksOf, eventsOf, measuredOf, type EventOf, type JobEvent } from "./job";
import { judgeTarget, planFor } from "./set-out";
import { calibrationLog, standingNow, targetInHand } from "./standing";

/** The last answer of the routine, with where it stands in the log; null while there is none. */
export function lastAnswer(
  view: CalibrationGround,
  events: readonly JobEvent[],
): EventOf<"run"> | null {
  return (
    eventsOf(calibrationLog(view, events), "run").findLast(
      (e) => e.body.event.type === "routine-result",
    ) ?? null
  );
}

/** Each part of a board's pose as the set-out names it. */
const NAMED: Record<BoardQuantity, QuantityId> = {
  along: "along",
  side: "across",
  height: "height",
  twist: "twist",
  lean: "pitch",
  level: "roll",
};
/** How well the place of a board is known that nobody read: rolled in by eye, mm and rad. */
const BY_EYE: Record<BoardQuantity, number> = {
  along: 45,
  side: 30,
  height: 18,
  twist: degToRad(1.1),
  lean: UNREAD_ROLL,
  level: UNREAD_ROLL,
};
/** How far off a board in order stands where its sheet sets no limit, mm and rad. */
const IN_ORDER: Record<BoardQuantity, number> = {
  along: 5,
  side: 5,
  height: 3,
  twist: degToRad(0.2),
  lean: degToRad(0.3),
  level: degToRad(0.3),
};

/**
 * What most likely made a camera refuse its one board, by what this job knows at that moment: the
 * set-out's figures with their spread, the code of the board, the glass, and who looked for what.
 *
 * @returns likeliest first; null where nothing was refused, where several boards share one answer, or
 *   the book does not say where the camera sits
 */
export function refusalCauses(
  view: CalibrationGround,
  events: readonly JobEvent[],
): RankedCause[] | null {
  const answer = lastAnswer(view, events);
  const refused = answer?.body.event.type === "routine-result" && !answer.body.event.result.passed;
  return refused ? ranked(view, events, answer) : null;
}

/** So little above what the sheet asks a quality is near its limit, per cent. */
const NEAR_PERCENT = 6;

/**
 * The same of an answer that passed, and only just: what most likely limits it.
 *
 * @returns null where it passed well, and where nothing can be ranked
 */
export function limitingCauses(
  view: CalibrationGround,
  events: readonly JobEvent[],
): RankedCause[] | null {
  const answer = lastAnswer(view, events);
  if (answer?.body.event.type !== "routine-result") return null;
  const { result, step: id } = answer.body.event;
  const step = view.sheet.run.find((s) => s.id === id);
  const near =
    step?.kind === "routine" &&
    result.passed &&
    result.qualityPercent >= step.minQuality &&
    result.qualityPercent < step.minQuality + NEAR_PERCENT;
  return near ? ranked(view, events, answer) : null;
}

/** The causes of an answer, by what was known when it came. */
function ranked(
  view: CalibrationGround,
  events: readonly JobEvent[],
  answer: EventOf<"run">,
): RankedCause[] | null {
  if (answer.body.event.type !== "routine-result") return null;
  const { result } = answer.body.event;
  // It has said itself what it wants, and has not looked.
  if (result.refused === "conditions") return null;
  const camera = cameraOf(view);
  const then = events.filter((e) => e.seq <= answer.seq || e.body.kind === "strike");
  const target = camera && targetInHand(view, then);
  if (!target || isByHand(target) || target.frame) return null;
  const standing = standingNow(view, then, target.id);
  if (standing.length !== 1 || target.object.is === "reflector") return null;
  // A board squared to a line nobody knows stands nowhere in particular.
  if (wantsThrust(view.sheet) && !planFor(view, then, target.id).rearToe) return null;
  const place = nominalTarget(planFor(view, then, target.id));
  const found = quantitiesOf(judgeTarget(view, then, target.id).solution);
  const board = Object.fromEntries(
    BOARD_QUANTITIES.map((q) => {
      const read = found.find((f) => f.id === NAMED[q]);
      const limit = read && Math.min(Math.abs(read.lower), Math.abs(read.upper));
      return [
        q,
        {
          mean: read?.error ?? 0,
          sigma: read ? Math.min(read.sigma, 3 * BY_EYE[q]) : BY_EYE[q],
          usual: limit && Number.isFinite(limit) ? limit / 2 : IN_ORDER[q],
        },
      ];
    }),
  ) as CauseEvidence["board"];
  const rangeMm = Math.hypot(place.xMm - camera.xMm, place.yMm - camera.yMm);
  const { settled, board: checked } = standing[0]!;
  const looked = (what: Disturber): Looked => lookedFor(view, then, what);
  const turn = [result.learnedYawDeg, result.learnedPitchDeg, result.learnedRollDeg];
  return rankCauses(
    {
      board,
      proved: settled !== null,
      looked: {
        print: checked ? "looked" : "not-looked",
        clutter: looked("clutter"),
        glare: looked("glare"),
        load: looked("load"),
      },
      camera: foretellAim(glassOf(view, then), [], bodyBias(view, then, rangeMm)),
      geometry: {
        rangeMm,
        aboveMm: target.placement.heightMm - camera.zMm,
        widthMm: target.object.widthMm,
      },
    },
    {
      code: result.refused ?? null,
      turn: turn.includes(undefined)
        ? null
        : (turn.map((deg) => degToRad(deg!)) as [number, number, number]),
      qualityPercent: result.qualityPercent,
      size: result.sizePercent === undefined ? null : result.sizePercent / 100,
    },
  );
}

/** Whether somebody looked for what would disturb a look, by the items that look for it. */
function lookedFor(view: CalibrationGround, events: readonly JobEvent[], what: Disturber): Looked {
  const items = itemsOf(view, "ready").filter((i) => i.looksFor === what);
  const outcomes = items.map((i) => checksOf(events, "ready").get(i.id)?.body.outcome);
  if (outcomes.some((o) => o === "accepted" || o === "blocks")) return "known";
  const measured = items.some((i) => measuredOf(events).has(i.id));
  return measured || outcomes.some((o) => o === "fine" || o === "fixed") ? "looked" : "not-looked";
}

/** What happened since the routine last answered that may make it answer otherwise. */
export const CHANGES = ["readings", "board", "checks", "vehicle"] as const;
export type Change = (typeof CHANGES)[number];

const CHANGE_OF: Partial<Record<JobEvent["body"]["kind"], Change>> = {
  reading: "readings",
  strike: "readings",
  settled: "readings",
  move: "board",
  touch: "board",
  position: "board",
  kept: "board",
  board: "board",
  check: "checks",
  measured: "checks",
  "put-right": "checks",
  glass: "vehicle",
  scan: "vehicle",
  "rear-toe": "vehicle",
};

/** @returns in a fixed order; empty where nothing did */
export function changedSince(view: CalibrationGround, events: readonly JobEvent[]): Change[] {
  const answer = lastAnswer(view, events);
  if (!answer) return [];
  const kinds = new Set(
    calibrationLog(view, events)
      .filter((e) => e.seq > answer.seq)
      .map((e) => CHANGE_OF[e.body.kind]),
  );
  return CHANGES.filter((c) => kinds.has(c));
}

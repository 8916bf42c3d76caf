import { glassWords, judgeMeasure } from "@/core/ready";
import {
  moveWords,
  SCHOOLS,
  slotValue,
  TOUCHES,
  type Judged,
  type LengthSetting,
} from "@/core/setout";
import { happeningName, lineName } from "@/core/owed";
import { placeName } from "@/core/sheet";
import { dateAndTime, formatChance, formatNumber } from "@/core/units";
import { piecesOf, standingSettlement, strikes, type JobEvent } from "./job";
import { itemOf } from "./items";
import { jobOwed } from "./owed";
import type { JobGround } from "./ground";
import type { StageId } from "./stages";
import { FUNCTIONS, LAMPS, PHOTO_SUBJECTS, type FunctionId } from "./walk";
import { runEventWords, scanEventWords } from "./words";

/** One printed line of the slip. */
export type SlipLine = {
  id: string;
  /** The event it came from, for looking it up or striking it; several lines may share one. */
  eventId: string;
  stage: StageId;
  at: string;
  initials: string;
  label: string;
  value: string;
  instrument: string | null;
  state: "settled" | "loose" | "doubt" | "struck" | "stop";
  note: string | null;
  /** Whether the line can be struck from the slip. */
  strikable: boolean;
};

/** Everything settled about a job, in the order it was settled. Struck lines stay readable. */
export function slipLines(
  events: readonly JobEvent[],
  ground: JobGround,
  judged: Judged | null,
  setting: LengthSetting,
): SlipLine[] {
  const struck = strikes(events);
  const suspects = new Set(judged?.verdict.suspects);
  const readings = new Map(judged?.solution.readings.map((r) => [r.id, r]));
  const standing = standingSettlement(events);
  // Each place has its own settlement; those of earlier places stay as they were left.
  const held = new Set(piecesOf(events).map((p) => standingSettlement(p.events)?.id));

  return events.flatMap((e): SlipLine[] => {
    const strike = struck.get(e.id);
    const line = (
      stage: StageId,
      label: string,
      value: string,
      more: Partial<SlipLine> = {},
    ): SlipLine => ({
      id: `${e.id}/${label}`,
      eventId: e.id,
      stage,
      at: e.at,
      initials: e.by.initials,
      label,
      value,
      instrument: null,
      state: "settled",
      note: null,
      strikable: false,
      ...more,
      ...(strike
        ? {
            state: "struck",
            note: `Struck by ${strike.by.initials}: ${strike.body.reason}`,
            strikable: false,
          }
        : {}),
    });
    const b = e.body;
    switch (b.kind) {
      case "taken-in": {
        const { intake, vehicle, sheet } = ground;
        return [
          line("take-in", "Vehicle", `${vehicle.make} ${vehicle.model}, ${vehicle.variant}`),
          line(
            "take-in",
            "VIN",
            intake.vin || "not read",
            intake.vinReason
              ? { state: "loose", note: `Kept although it fails its check: ${intake.vinReason}` }
              : {},
          ),
          line("take-in", "Done", intake.happenings.map(happeningName).join(", ")),
          ...(intake.complaint ? [line("take-in", "Customer says", intake.complaint)] : []),
          ...jobOwed(ground, events)
            .lines.filter((l) => !l.added || l.because.length > 0)
            .map((l) => line("owed", "Owed", lineName(l))),
          line("owed", "Sheet", `${sheet.title} (${sheet.id} v${sheet.version})`),
        ];
      }
      case "check": {
        const item = itemOf(ground, b.stage, b.itemId);
        const value = {
          fine: "fine",
          fixed: "fixed now",
          accepted: "accepted",
          blocks: "blocks the job",
        }[b.outcome];
        return [
          line(b.stage, item?.ask ?? b.itemId, value, {
            note: b.reason,
            state: b.outcome === "blocks" ? "stop" : b.outcome === "accepted" ? "loose" : "settled",
            strikable: true,
          }),
        ];
      }
      case "reading": {
        const slot = judged?.solution.slots.find((s) => s.id === b.slotId);
        const state = suspects.has(e.id)
          ? "loose"
          : readings.get(e.id)?.state === "doubt"
            ? "doubt"
            : "settled";
        const note =
          state === "loose"
            ? "Suspect: does not agree with the others"
            : state === "doubt"
              ? "Read before something moved"
              : null;
        return [
          line(
            "set-out",
            slot?.name ?? b.slotId,
            slot ? slotValue(slot, b.shown, setting) : b.typed,
            {
              instrument: b.instrumentId,
              state,
              note,
              strikable: true,
            },
          ),
        ];
      }
      case "position":
        return [
          line(
            "run",
            "Board on its way to",
            `${placeName(ground.sheet, b.to)}${b.standId ? `, on ${b.standId}` : ""}`,
          ),
        ];
      case "board":
        return [
          line("run", "Board checked", `${b.code}, arrow up`, {
            note: b.reason ? `Worn: ${b.reason}` : null,
            state: b.reason ? "loose" : "settled",
            strikable: true,
          }),
        ];
      case "school":
        return [line("set-out", "Way of setting out", SCHOOLS[b.school].name)];
      case "rear-toe":
        return [
          line(
            "set-out",
            b.how === "rolled" ? "Rear toe, rolled under the rig" : "Rear toe, printout",
            `left ${formatNumber(b.leftDeg, 2)}°, right ${formatNumber(b.rightDeg, 2)}°`,
            { strikable: true },
          ),
        ];
      case "touch":
        return [
          line("set-out", "Touched", TOUCHES[b.touch].name, { state: "doubt", strikable: true }),
        ];
      case "move":
        return [
          line("set-out", "Moved", moveWords(b.move, ground.vehicle, setting).say, {
            strikable: true,
          }),
        ];
      case "settled": {
        const holds = held.has(e.id);
        return [
          line(
            "set-out",
            "Board set",
            `${formatChance(b.chance)} in tolerance`,
            holds ? {} : { state: "doubt", note: "Disturbed since" },
          ),
        ];
      }
      case "run": {
        const words = runEventWords(b.event, ground.sheet);
        const failed = b.event.type === "routine-result" && !b.event.result.passed;
        return [
          line("run", words.label, words.value, {
            state: failed ? "stop" : b.event.type === "connect-failed" ? "loose" : "settled",
          }),
        ];
      }
      case "scan": {
        const words = scanEventWords(b.event);
        return words
          ? [
              line(standing ? "prove" : "ready", words.label, words.value, {
                state: words.bad ? "loose" : "settled",
              }),
            ]
          : [];
      }
      case "measured": {
        const item = itemOf(ground, "ready", b.itemId);
        const judged = item?.measure && judgeMeasure(item.measure, b.values, ground.vehicle);
        return [
          line("ready", item?.ask ?? b.itemId, judged ? judged.headline : "measured", {
            state: judged?.ok === false ? "loose" : "settled",
            strikable: true,
          }),
        ];
      }
      case "put-right": {
        const item = itemOf(ground, "ready", b.itemId);
        return [
          line("ready", item?.ask ?? b.itemId, "put right, to be read again", {
            state: "loose",
            strikable: true,
          }),
        ];
      }
      case "glass":
        return [line("take-in", "Glass", glassWords(ground.vehicle, b), { strikable: true })];
      case "walk": {
        const lamps = b.lamps.map((l) => LAMPS[l]).join(", ");
        return [
          line("take-in", "Odometer", `${formatNumber(b.odometerKm)} km`, { strikable: true }),
          line("take-in", "Lamps", lamps || "none lit", {
            state: lamps ? "loose" : "settled",
            strikable: true,
          }),
          ...Object.entries(b.settings).map(([f, text]) =>
            line("take-in", `As found: ${FUNCTIONS[f as FunctionId].name}`, text, {
              strikable: true,
            }),
          ),
        ];
      }
      case "photo":
        return [
          line(
            b.subject === "set-out" ? "set-out" : "take-in",
            "Photo",
            PHOTO_SUBJECTS[b.subject],
            {
              note: b.takenAt ? `Taken ${dateAndTime(b.takenAt)} by the camera’s clock` : null,
              strikable: true,
            },
          ),
        ];
      case "consent":
        return [line("take-in", "Consent to drive", `signed by ${b.name}`, { strikable: true })];
      case "owed-decline": {
        const declined = jobOwed(ground, events).lines.find((l) => l.id === b.line);
        return [
          line("owed", "Declined", declined ? lineName(declined) : b.line, {
            state: "loose",
            note: b.reason,
            strikable: true,
          }),
        ];
      }
      case "owed-done": {
        const done = jobOwed(ground, events).lines.find((l) => l.id === b.line);
        return [
          line("owed", "Done, not on this sheet", done ? lineName(done) : b.line, {
            note: b.note,
            strikable: true,
          }),
        ];
      }
      case "owed-add":
        return [
          line("owed", "Owed, added", lineName({ system: b.system, kind: b.method }), {
            note: b.reason,
            strikable: true,
          }),
        ];
      case "pause":
        return [line(standing ? "run" : "ready", "Clock stopped", b.reason, { state: "loose" })];
      case "resume":
        return [];
      case "bump":
        return []; // nobody noticed: that is the point
      case "strike":
        return [];
      case "hand-over":
        return [line("hand-over", "Handed over", "report and record")];
      case "reopen":
        return [line("hand-over", "Opened again for a revision", b.reason, { state: "loose" })];
      case "document":
        return [
          line(
            "hand-over",
            `${b.document === "record" ? "Record" : "Report"}, version ${b.version}`,
            b.sha256.slice(0, 12),
            { note: `Kept as made by Iridel ${b.program}` },
          ),
        ];
    }
  });
}

import { useCallback, useEffect, useState } from "react";
import { documentsOnTheSpot, fittedTo, sheetsFor, type Intake, type SheetChoice } from "@/core/job";
import type { Board } from "@/core/kit";
import {
  EVENT_PLACES,
  OrderCycleError,
  owedFor,
  planOwed,
  type OwedLine,
  type RuleBook,
} from "@/core/owed";
import { isByHand, standsFor, type Stand } from "@/core/setout";
import { targetsOf, wantsThrust, type Sheet } from "@/core/sheet";
import { instantOf } from "@/core/units/local-time";
import { degToRad, parseQuantity, radToDeg, timesIn, type UnitId } from "@/core/units";
import { checkVin, type Vehicle, type VinCheck } from "@/core/vehicle";
import { readSpot, type SpotDraft, type SpotField, type SpotReading } from "./spot-draft";

/** What is on the take-in page, exactly as typed. Kept on the tablet until the job is open. */
export type IntakeDraft = {
  vin: string;
  vinReason: string;
  /** Chosen by hand; null while the VIN decides. */
  vehicleId: string | null;
  happenings: Intake["happenings"];
  answers: Record<string, string>;
  complaint: string;
  standId: string | null;
  /** Sheets taken instead of the first of their system, by the first one's id. */
  instead: Record<string, string>;
  customer: string;
  plate: string;
  order: string;
  /** By the shop's clock, YYYY-MM-DDTHH:mm. */
  promised: string;
  toeLeft: string;
  toeRight: string;
  /** What is typed of a vehicle no book has; null where one has it. */
  spot: SpotDraft | null;
  /** The booking it comes by. */
  booked: Intake["booked"] | null;
};

const EMPTY: IntakeDraft = {
  vin: "",
  vinReason: "",
  vehicleId: null,
  happenings: [],
  answers: {},
  complaint: "",
  standId: null,
  instead: {},
  customer: "",
  plate: "",
  order: "",
  promised: "",
  toeLeft: "",
  toeRight: "",
  spot: null,
  booked: null,
};
const KEY = "iridel:take-in/2";

/**
 * The draft, surviving reload and crash.
 * @returns the draft, what changes it, what empties it, and whether the page is awake: what is
 *   typed before would be lost
 */
export function useIntakeDraft(): [
  IntakeDraft,
  (patch: Partial<IntakeDraft>) => void,
  () => void,
  boolean,
] {
  const [draft, setDraft] = useState(EMPTY);
  const [awake, setAwake] = useState(false);
  useEffect(() => {
    try {
      // Only the browser knows what an earlier visit left; it is read after the first paint.
      // eslint-disable-next-line react-hooks/set-state-in-effect
      setDraft((d) => ({
        ...d,
        ...(JSON.parse(localStorage.getItem(KEY) ?? "{}") as Partial<IntakeDraft>),
      }));
    } catch {
      localStorage.removeItem(KEY);
    }
    setAwake(true);
  }, []);
  const change = useCallback((patch: Partial<IntakeDraft>) => {
    setDraft((d) => {
      const next = { ...d, ...patch };
      localStorage.setItem(KEY, JSON.stringify(next));
      return next;
    });
  }, []);
  const clear = useCallback(() => {
    localStorage.removeItem(KEY);
    setDraft(EMPTY);
  }, []);
  return [draft, change, clear, awake];
}

export type FieldId =
  "vin" | "vehicle" | "done" | "questions" | "toe" | "customer" | `spot-${SpotField}`;

/** What a draft amounts to: the choices that follow from it, and the first thing it lacks. */
export type IntakeReading = {
  vin: VinCheck;
  vehicle: Vehicle | null;
  /** Whether the VIN itself picked the vehicle. */
  byVin: boolean;
  /** The questions whose answer changes what is owed, or which is still open among them. */
  questions: Vehicle["questions"];
  /** What can be taken for each calibration that is owed, in the order of the plan. */
  choices: SheetChoice[];
  /** What is taken. */
  sheets: Sheet[];
  stand: Stand | null;
  /** What was typed on the spot, read; null where a book has the vehicle. */
  spot: SpotReading | null;
  toe: { left: number | null; right: number | null; problem: string | null };
  lack: { field: FieldId | null; say: string } | null;
  intake: Intake | null;
};

const TOE = { name: "rear toe", dimension: "angle", min: degToRad(-3), max: degToRad(3) } as const;

function readToe(text: string): { value: number | null; problem: string | null } {
  if (text.trim() === "") return { value: null, problem: null };
  const parsed = parseQuantity(text, TOE, "deg");
  return parsed.ok
    ? { value: radToDeg(parsed.value), problem: null }
    : { value: null, problem: parsed.problem };
}

/** Whether anything of a sheet stands on a stand. */
export const wantsStand = (sheet: Sheet): boolean => targetsOf(sheet).some((t) => !isByHand(t));

/**
 * The stand that carries what a sheet has standing: the one that was chosen where it can, else one of
 * those that can; null where none does, or none is needed.
 */
export function standForSheet(
  sheet: Sheet,
  stands: readonly Stand[],
  chosen: Stand | null,
): Stand | null {
  const able = standsFor(sheet, stands);
  return able?.find((s) => s === chosen) ?? able?.[0] ?? null;
}

/** What is owed, in the order it is to be done; where the orders contradict each other, as it came. */
function owedInOrder(vehicle: Vehicle, d: IntakeDraft, book: RuleBook): OwedLine[] {
  const lines = owedFor(d.happenings, fittedTo(vehicle, d.answers), book.rules);
  try {
    return planOwed(lines, book).steps.map((s) => s.line);
  } catch (error) {
    if (!(error instanceof OrderCycleError)) throw error;
    return lines;
  }
}

/** What the shop has to take a vehicle in with. */
export type Shop = {
  vehicles: Vehicle[];
  sheets: Sheet[];
  stands: Stand[];
  boards: readonly Board[];
  book: RuleBook;
  /** Who takes it in, and the unit of a length typed without one. */
  me: string;
  lengths: UnitId;
  /** The zone the shop’s clock hangs in: a promised time is one of it. */
  zone: string;
};

/** The documents of what is typed on the spot, as soon as all of it is there. */
function typedDocuments(
  d: IntakeDraft,
  { typed }: SpotReading,
  { me, zone }: Pick<Shop, "me" | "zone">,
): { vehicle: Vehicle; sheet: Sheet } | null {
  if (!typed) return null;
  const intake = { vin: checkVin(d.vin).vin, happenings: d.happenings };
  return documentsOnTheSpot(typed, intake, me, timesIn(zone).day(new Date().toISOString()));
}

/** Works out what follows from the draft. Pure: the page redraws it at every key. */
export function readIntake(d: IntakeDraft, shop: Shop): IntakeReading {
  const { vehicles, sheets, stands, book } = shop;
  const vin = checkVin(d.vin);
  const matched = vehicles.find((v) => vin.vin.startsWith(v.vinStart)) ?? null;
  const spot = d.spot && readSpot(d.spot, shop.boards, shop.lengths);
  const typed = spot && typedDocuments(d, spot, shop);
  const known = vehicles.find((v) => v.id === d.vehicleId) ?? matched;
  const vehicle = spot ? (typed?.vehicle ?? null) : known;
  const choices = typed
    ? [{ sheet: typed.sheet, instead: [] }]
    : vehicle
      ? sheetsFor(vehicle.id, d.happenings, owedInOrder(vehicle, d, book), sheets)
      : [];
  const taken = choices.map(
    (c) => c.instead.find((s) => s.id === d.instead[c.sheet.id]) ?? c.sheet,
  );
  const stand = stands.find((s) => s.id === d.standId) ?? stands[0] ?? null;
  const [left, right] = [readToe(d.toeLeft), readToe(d.toeRight)];
  const toe = { left: left.value, right: right.value, problem: left.problem ?? right.problem };
  const questions = vehicle ? decisiveQuestions(vehicle, d, book) : [];
  const reading = {
    vin,
    vehicle,
    questions,
    byVin: vehicle !== null && vehicle === matched,
    choices,
    sheets: taken,
    stand,
    spot,
    toe,
  };

  const lacks = (field: FieldId | null, say: string): IntakeReading => ({
    ...reading,
    lack: { field, say },
    intake: null,
  });
  const [missing] = [
    [spot ? [spot] : vehicles, "vehicle"],
    [spot ? [spot] : sheets, "sheet"],
    [stands, "stand"],
  ].filter(([list]) => list!.length === 0);
  if (missing)
    return lacks(null, `The shop has no ${String(missing[1])} yet: enter one first, then take in.`);
  if (vin.vin === "") return lacks("vin", "Type or scan the VIN.");
  if (!vin.ok && d.vinReason.trim().length < 3)
    return lacks("vin", "Correct the VIN, or say why it is kept as it is.");
  if (spot?.lack) return lacks(`spot-${spot.lack.field}`, spot.lack.say);
  if (!vehicle)
    return lacks(
      "vehicle",
      "This VIN is not of a kind the shop knows: choose the vehicle, or type it on the spot.",
    );
  if (d.happenings.length === 0) return lacks("done", "Say what was done to the vehicle.");
  if (d.happenings.some((h) => h.place === null && EVENT_PLACES[h.event].length > 1))
    return lacks("done", "Say where on the vehicle it was done.");
  const open = questions.find((q) => !d.answers[q.id]);
  if (open) return lacks("questions", open.ask);
  if (taken.length === 0)
    return lacks(
      null,
      `The shop has no sheet for the ${vehicle.model} after this work. It cannot be opened without one: enter the sheet from the shop’s own service information first.`,
    );
  if (!stand) return lacks(null, "The shop has no stand in its kit.");
  const bare = taken.find((s) => wantsStand(s) && !standForSheet(s, stands, stand));
  if (bare)
    return lacks(
      null,
      `No stand of the kit holds what “${bare.title}” asks for at its height. Enter one under Kit, or its booster.`,
    );
  const thrust = taken.some(wantsThrust);
  if (thrust && (toe.left === null || toe.right === null))
    return lacks(
      "toe",
      toe.problem ??
        "The sheet squares to the thrust line: type rear toe left and right from the alignment printout.",
    );
  if (d.customer.trim() === "") return lacks("customer", "Name the customer.");
  const intake: Intake = {
    vin: vin.vin,
    vinReason: vin.ok ? null : d.vinReason.trim(),
    vehicleId: vehicle.id,
    happenings: d.happenings,
    answers: Object.fromEntries(questions.map((q) => [q.id, d.answers[q.id]!])),
    complaint: d.complaint.trim(),
    sheets: taken.map((s) => ({
      sheetId: s.id,
      sheetVersion: s.version,
      standId: standForSheet(s, stands, stand)?.id ?? null,
    })),
    customer: d.customer.trim(),
    plate: d.plate.trim(),
    order: d.order.trim(),
    promisedAt: d.promised ? instantOf(d.promised, shop.zone) : null,
    rearToeDeg: thrust ? { left: toe.left!, right: toe.right! } : null,
    ...(spot?.typed ? { onTheSpot: spot.typed } : {}),
    ...(d.booked ? { booked: d.booked } : {}),
  };
  return { ...reading, lack: null, intake };
}

/**
 * Only the questions whose choices lead to different things being owed; the rest would be asked for
 * nothing.
 */
function decisiveQuestions(vehicle: Vehicle, d: IntakeDraft, book: RuleBook): Vehicle["questions"] {
  return vehicle.questions.filter((q) => {
    const outcomes = q.choices.map((c) =>
      owedFor(d.happenings, fittedTo(vehicle, { [q.id]: c.id }), book.rules)
        .map((l) => l.id)
        .join(),
    );
    return new Set(outcomes).size > 1;
  });
}

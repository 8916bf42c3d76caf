import { plainly } from "@/core/book";
import { max } from "drizzle-orm";
import { nanoid } from "nanoid";
import {
  documentsOnTheSpot,
  intakeSchema,
  type Calibration,
  type Intake,
  type JobGround,
} from "@/core/job";
import { boosterFor, HANDS, isByHand, lacksReference, outOfReach, targetOn } from "@/core/setout";
import { wantsThrust, type Sheet } from "@/core/sheet";
import { checkVin, type Vehicle } from "@/core/vehicle";
import type { Person } from "../auth/session";
import { config } from "../config";
import { db } from "../db/client";
import { jobs } from "../db/schema";
import { goodBayFloors } from "../kit/bay-floors";
import { bookingTakenIn } from "../day/store";
import { failedStands, listBoards } from "../kit/store";
import {
  glassPolicy,
  drivePolicy,
  releaseRule,
  listInstruments,
  listSheets,
  listStands,
  listVehicles,
  ruleBook,
} from "../shop/store";
import { addLine } from "./log";
import { JobRefusal } from "./refusal";
import { searchWords } from "./search-words";
import { ticketLater } from "./tickets";

/** A sheet in force, and the stand that carries its first target. @throws JobRefusal */
function calibrationFor(
  { sheetId, sheetVersion, standId }: Intake["sheets"][number],
  vehicle: Vehicle,
  typed: Sheet | null,
): Calibration {
  const sheet = [...(typed ? [typed] : []), ...listSheets()].find(
    (s) => s.id === sheetId && s.version === sheetVersion,
  );
  if (!sheet)
    throw new JobRefusal(
      "Sheet: this version is no longer the newest. Reload the page and choose again.",
    );
  if (!sheet.appliesTo.vehicles.includes(vehicle.id))
    throw new JobRefusal(`Sheet: ${sheet.title} is not for the ${vehicle.model}.`);
  if (sheet.status !== "checked" && sheet !== typed)
    throw new JobRefusal(
      `Sheet: no second person has checked ${sheet.title} yet. Have it checked first.`,
    );
  // The calibration's own stand carries the first board of every setup; others choose theirs.
  const own = sheet.setups.map((s) => s.targets[0]!).filter((t) => !isByHand(t));
  if (own.length === 0) return { id: sheet.id, sheet, stand: HANDS };
  const stand = listStands().find((s) => s.id === standId);
  if (!stand) throw new JobRefusal("Stand: choose one from the kit.");
  for (const target of own) {
    const lacks = lacksReference(target, stand);
    if (lacks) throw new JobRefusal(`Stand: ${lacks}`);
    const { heightMm } = targetOn(target, stand).placement;
    if (boosterFor(stand, heightMm) === undefined)
      throw new JobRefusal(`Stand: ${outOfReach(stand, heightMm)}`);
  }
  const failed = failedStands().get(stand.id);
  if (failed)
    throw new JobRefusal(
      `Stand: ${stand.id} failed its zero check (${failed}). Put it right and check it again, or choose another.`,
    );
  return { id: sheet.id, sheet, stand };
}

/** The documents made of what was typed on the spot, if anything was. @throws JobRefusal */
function typedDocuments(
  intake: Intake,
  person: Person,
  at: string,
): ReturnType<typeof documentsOnTheSpot> | null {
  if (!intake.onTheSpot) return null;
  const { boardCode } = intake.onTheSpot;
  if (!listBoards().some((b) => b.code === boardCode))
    throw new JobRefusal(`Board: ${boardCode} is no board of this shop’s kit. Choose one of it.`);
  return documentsOnTheSpot(intake.onTheSpot, intake, person.name, at.slice(0, 10));
}

/** The documents in force, chosen by an intake. @throws JobRefusal naming the field at fault */
function groundFor(intake: Intake, person: Person, at: string): JobGround {
  const vin = checkVin(intake.vin);
  if (!vin.ok && !intake.vinReason)
    throw new JobRefusal(`VIN: ${vin.problems[0]!.message} Correct it, or keep it with a reason.`);
  const typed = typedDocuments(intake, person, at);
  const vehicle = typed?.vehicle ?? listVehicles().find((v) => v.id === intake.vehicleId);
  if (!vehicle) throw new JobRefusal("Vehicle: choose one from the shop's list.");
  const calibrations = intake.sheets.map((s) => calibrationFor(s, vehicle, typed?.sheet ?? null));
  const names = calibrations.map((c) => c.id);
  if (new Set(names).size < names.length)
    throw new JobRefusal("Sheet: one of them is chosen twice. Take it once.");
  if (calibrations.some((c) => wantsThrust(c.sheet)) && !intake.rearToeDeg)
    throw new JobRefusal(
      "Rear toe: the sheet squares the board to the thrust line; enter left and right from the printout.",
    );
  return {
    intake,
    vehicle,
    calibrations,
    stands: listStands().filter((s) => !failedStands().has(s.id)),
    instruments: listInstruments(),
    boards: listBoards(),
    bayFloors: goodBayFloors(),
    ruleBook: ruleBook(),
    glassPolicy: glassPolicy(),
    release: releaseRule(),
    drivePolicy: drivePolicy(),
    ...(config.simulated ? {} : { real: true }),
  };
}

/**
 * Opens a job from its intake: freezes the documents in force and writes the first line.
 *
 * @throws JobRefusal naming the field at fault
 */
export function takeIn(
  input: unknown,
  person: Person,
  options: { seed?: string; at?: string } = {},
): string {
  const intake = intakeSchema.parse(input, plainly);
  const at = options.at ?? new Date().toISOString();
  const ground = groundFor(intake, person, at);
  const id = nanoid(12);
  const seed = options.seed ?? config.baySeed ?? id;
  db().transaction(
    (tx) => {
      const number =
        (tx
          .select({ n: max(jobs.number) })
          .from(jobs)
          .get()?.n ?? 1040) + 1;
      const row = {
        id,
        number,
        createdAt: at,
        createdBy: person.id,
        ground,
        seed,
        vin: intake.vin,
        head: 1,
        updatedAt: at,
      };
      tx.insert(jobs).values(row).run();
      const body = { kind: "taken-in", intake } as const;
      addLine(
        id,
        1,
        { id: nanoid(16), at, receivedAt: at, clockBehindS: null, seen: 0, body, sent: null },
        person,
      );
      if (intake.booked) bookingTakenIn(intake.booked.id, id);
      db()
        .$client.prepare("INSERT INTO job_search (jobId, words) VALUES (?, ?)")
        .run(id, searchWords(number, ground));
    },
    { behavior: "immediate" },
  );
  ticketLater(id);
  return id;
}

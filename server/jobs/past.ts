import type { Intake, JobGround } from "@/core/job";
import { happeningName } from "@/core/owed";
import { db } from "../db/client";
import { searchQuery } from "./list";

/** A vehicle the shop has had before, newest visit first. */
export type PastVehicle = {
  vin: string;
  vehicleId: string;
  vehicle: string;
  plate: string;
  customer: string;
  answers: Intake["answers"];
  visits: { id: string; number: number; at: string; done: string }[];
};

type Row = { id: string; number: number; createdAt: string; vin: string; ground: string };
/** Vehicles shown for a search: more is no help to anybody. */
const MOST = 30;

/** Visits to vehicles: what is known of a vehicle is what was written last. */
function vehiclesOf(rows: readonly Row[]): PastVehicle[] {
  const known = new Map<string, PastVehicle>();
  for (const row of rows) {
    const { intake, vehicle } = JSON.parse(row.ground) as JobGround;
    const visit = {
      id: row.id,
      number: row.number,
      at: row.createdAt,
      done: intake.happenings.map(happeningName).join(", "),
    };
    const before = known.get(row.vin);
    if (before) before.visits.push(visit);
    else
      known.set(row.vin, {
        vin: row.vin,
        vehicleId: vehicle.id,
        vehicle: `${vehicle.make} ${vehicle.model}`,
        plate: intake.plate,
        customer: intake.customer,
        answers: intake.answers,
        visits: [visit],
      });
  }
  return [...known.values()];
}

const COLUMNS = "j.id, j.number, j.createdAt, j.vin, j.ground";

/** Jobs looked back on for what a shop usually has in its bays. */
const LATELY = 60;

/** Kinds of vehicle that came of late, those that came most often first; their ids. */
export const usualVehicles = (): string[] =>
  db()
    .$client.prepare(
      `SELECT json_extract(ground, '$.vehicle.id') AS id FROM (SELECT ground FROM jobs ORDER BY createdAt DESC LIMIT ${LATELY}) GROUP BY id ORDER BY count(*) DESC, id`,
    )
    .pluck()
    .all() as string[];

/** The vehicle with this VIN as the shop knows it, or null. */
export function pastVehicle(vin: string): PastVehicle | null {
  if (vin === "") return null;
  const rows = db()
    .$client.prepare(
      `SELECT ${COLUMNS} FROM jobs j WHERE j.vin = ? ORDER BY j.createdAt DESC LIMIT 50`,
    )
    .all(vin);
  return vehiclesOf(rows as Row[])[0] ?? null;
}

/** Vehicles the shop has had before, by words; the last ones where nothing is looked for. */
export function findPastVehicles(find: string): PastVehicle[] {
  const query = searchQuery(find);
  const { $client } = db();
  const rows = query
    ? $client
        .prepare(
          `SELECT ${COLUMNS} FROM job_search JOIN jobs j ON j.id = job_search.jobId WHERE job_search MATCH ? ORDER BY j.createdAt DESC LIMIT ${3 * MOST}`,
        )
        .all(query)
    : $client
        .prepare(`SELECT ${COLUMNS} FROM jobs j ORDER BY j.createdAt DESC LIMIT ${MOST}`)
        .all();
  return vehiclesOf(rows as Row[])
    .filter((v) => v.vin !== "")
    .slice(0, MOST);
}

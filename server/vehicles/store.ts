import { desc, eq } from "drizzle-orm";
import { readVehicle, signVehicle, vehicleProblems, type Vehicle } from "@/core/vehicle";
import { makeBook } from "../book/book";
import { db } from "../db/client";
import { vehicles } from "../db/schema";

/** All versions of a vehicle, newest first. */
export const vehicleVersions = (id: string): Vehicle[] =>
  db()
    .select()
    .from(vehicles)
    .where(eq(vehicles.id, id))
    .orderBy(desc(vehicles.version))
    .all()
    .map((r) => ({ ...r.doc, version: r.version }));

/** The shop's measuring book: dimensions and fitted systems, in versions like the sheets. */
export const vehicleBook = makeBook<Vehicle>({
  kind: "vehicle",
  versions: vehicleVersions,
  insert: (id, version, doc) => void db().insert(vehicles).values({ id, version, doc }).run(),
  idOf: (v) => v.id,
  versionOf: (v) => v.version ?? 1,
  problems: vehicleProblems,
  read: (json) => {
    const read = readVehicle(json);
    return read.ok ? { ok: true, doc: read.vehicle } : read;
  },
  enter: (draft, name) => {
    const checked =
      typeof draft.checked === "object" && draft.checked !== null ? draft.checked : {};
    return { ...draft, checked: { ...checked, enteredBy: name } };
  },
  sign: signVehicle,
  blank: {
    variant: "",
    body: "car",
    driverSide: "left",
    hubSigmaMm: 1.5,
    badgeSigmaMm: 2,
    fitted: [],
    questions: [],
    gateway: false,
    frontBadge: { yMm: 0 },
    rearBadge: { yMm: 0 },
    camera: { yMm: 0 },
    archMm: {},
    placardKPa: { half: {}, full: {} },
    tyres: {},
    glass: { equivalentParts: [], bracketAcrossMm: 0, limitDeg: 0.3 },
    version: 1,
  },
  called: (d) => `${String(d.make)} ${String(d.model)}`,
  signatureField: "checked.checkedBy",
});

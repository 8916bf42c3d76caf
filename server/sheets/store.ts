import { desc, eq } from "drizzle-orm";
import { draftProblems, readSheet, signSheet, type Sheet } from "@/core/sheet";
import { makeBook } from "../book/book";
import { db } from "../db/client";
import { sheets } from "../db/schema";

/** All versions of a sheet, newest first. */
export const sheetVersions = (id: string): Sheet[] =>
  db()
    .select()
    .from(sheets)
    .where(eq(sheets.id, id))
    .orderBy(desc(sheets.version))
    .all()
    .map((r) => r.doc);

/** The shop's book of procedure sheets. */
export const sheetBook = makeBook<Sheet>({
  kind: "sheet",
  versions: sheetVersions,
  insert: (id, version, doc) => void db().insert(sheets).values({ id, version, doc }).run(),
  idOf: (s) => s.id,
  versionOf: (s) => s.version,
  problems: draftProblems,
  read: (json) => {
    const read = readSheet(json);
    return read.ok ? { ok: true, doc: read.sheet } : read;
  },
  enter: (draft, name) => {
    const source = typeof draft.source === "object" && draft.source !== null ? draft.source : {};
    return { ...draft, source: { ...source, enteredBy: name } };
  },
  sign: signSheet,
  blank: {
    format: "iridel.sheet/1",
    version: 1,
    kind: "static",
    datum: "centreline",
    distanceFrom: "front-hub-line",
    appliesTo: { vehicles: [], system: "forward-camera", after: [] },
    placement: { acrossMm: 0, twistDeg: 0 },
    board: {},
    tolerance: {},
    cautions: ["Chocks in and park brake on before anyone works at the wheels."],
    ready: [],
    run: [],
    prove: [],
  },
  called: (d) => String(d.title),
  signatureField: "source.checkedBy",
});

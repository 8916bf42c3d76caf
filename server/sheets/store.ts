import { desc, eq } from "drizzle-orm";
import { draftProblems, readSheet, signSheet, upcastSheet, type Sheet } from "@/core/sheet";
import type { Draft } from "@/core/book";
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
    .map((r) => upcastSheet(r.doc) as Sheet);

/** The shop's book of procedure sheets. */
export const sheetBook = makeBook<Sheet>({
  kind: "sheet",
  versions: sheetVersions,
  insert: (id, version, doc) => void db().insert(sheets).values({ id, version, doc }).run(),
  idOf: (s) => s.id,
  versionOf: (s) => s.version,
  upcast: (doc) => upcastSheet(doc) as Draft,
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
    format: "iridel.sheet/2",
    version: 1,
    status: "provisional",
    method: "static",
    appliesTo: { vehicles: [], system: "forward-camera", after: [] },
    setups: [
      {
        id: "first",
        name: "first place",
        targets: [
          {
            id: "first",
            name: "first place",
            kind: "board",
            object: {},
            datum: "centreline",
            distanceFrom: "front-hub-line",
            placement: { acrossMm: 0, twistDeg: 0 },
            tolerance: {},
          },
        ],
      },
    ],
    cautions: [
      { say: "Chocks in and park brake on before anyone works at the wheels.", when: "wheels" },
    ],
    ready: [],
    run: [],
    prove: [],
  },
  called: (d) => String(d.title),
  signatureField: "source.checkedBy",
});

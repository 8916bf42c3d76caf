import { and, desc, eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import {
  differences,
  draftProblems,
  readSheet,
  signSheet,
  type Sheet,
  type SheetDraft,
  type SheetProblem,
} from "@/core/sheet";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { people, sheetDrafts, sheets } from "../db/schema";

/** The request does not fit the shop's book of sheets. The message names the field and the remedy. */
export class SheetRefusal extends Refusal {
  override readonly name = "SheetRefusal";
}

export type DraftRow = {
  key: string;
  doc: SheetDraft;
  editedBy: string;
  editorName: string;
  updatedAt: string;
  problems: SheetProblem[];
};

/** All versions of a sheet, newest first. */
export const sheetVersions = (id: string): Sheet[] =>
  db().select().from(sheets).where(eq(sheets.id, id)).orderBy(desc(sheets.version)).all().map((r) => r.doc); // prettier-ignore

const withName = () =>
  db().select({ key: sheetDrafts.key, doc: sheetDrafts.doc, editedBy: sheetDrafts.editedBy, editorName: people.name, updatedAt: sheetDrafts.updatedAt }).from(sheetDrafts).innerJoin(people, eq(people.id, sheetDrafts.editedBy)); // prettier-ignore

const judged = (r: Omit<DraftRow, "problems">): DraftRow => ({ ...r, problems: draftProblems(r.doc) });

export const listDrafts = (): DraftRow[] => withName().orderBy(desc(sheetDrafts.updatedAt)).all().map(judged); // prettier-ignore

export function findDraft(key: string): DraftRow | null {
  const row = withName().where(eq(sheetDrafts.key, key)).get();
  return row ? judged(row) : null;
}

function insertDraft(doc: SheetDraft, person: Person): string {
  const key = nanoid(12);
  const source = typeof doc.source === "object" && doc.source !== null ? doc.source : {};
  const entered = { ...doc, source: { ...source, enteredBy: person.name } };
  db().insert(sheetDrafts).values({ key, doc: entered, editedBy: person.id, updatedAt: new Date().toISOString() }).run(); // prettier-ignore
  return key;
}

/** Begins a new version of a sheet. @throws SheetRefusal when there is no such sheet */
export function draftFrom(id: string, person: Person): string {
  const [newest] = sheetVersions(id);
  if (!newest) throw new SheetRefusal("There is no such sheet. Go back to the list.");
  return insertDraft({ ...newest, version: newest.version + 1 }, person);
}

/**
 * Takes a sheet from a file. It becomes a draft: this shop's own second person checks it before it is used.
 *
 * @throws SheetRefusal when it is no JSON, no sheet, or claims to be a checked version and differs from it
 */
export function importSheet(text: string, person: Person): string {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new SheetRefusal(`The file is not JSON: ${error instanceof Error ? error.message : "it cannot be read"}.`);
  }
  const read = readSheet(json);
  if (!read.ok)
    throw new SheetRefusal(`The file is not a sheet that can be used. ${read.problems.slice(0, 3).join("; ")}`);
  const same = db().select().from(sheets).where(and(eq(sheets.id, read.sheet.id), eq(sheets.version, read.sheet.version))).get(); // prettier-ignore
  if (same) {
    const [first] = differences(same.doc, read.sheet);
    if (!first)
      throw new SheetRefusal(
        `Version ${read.sheet.version} of "${read.sheet.id}" is already in the book, word for word.`,
      );
    throw new SheetRefusal(`Version ${read.sheet.version} of "${read.sheet.id}" was checked and never changes, but ${first.path} differs (${first.before} there, ${first.after} here). Give the file version ${sheetVersions(read.sheet.id)[0]!.version + 1}.`); // prettier-ignore
  }
  return insertDraft(read.sheet, person);
}

/** Keeps what was typed so far, whatever it is; problems do not stop saving, only checking. */
export function saveDraft(key: string, doc: SheetDraft, person: Person): DraftRow {
  const old = findDraft(key);
  if (!old) throw new SheetRefusal("This draft is gone: it was checked or thrown away meanwhile.");
  const source = typeof doc.source === "object" && doc.source !== null ? doc.source : {};
  const entered = { ...doc, source: { ...source, enteredBy: person.name } };
  db().update(sheetDrafts).set({ doc: entered, editedBy: person.id, updatedAt: new Date().toISOString() }).where(eq(sheetDrafts.key, key)).run(); // prettier-ignore
  return findDraft(key)!;
}

export const discardDraft = (key: string): void => void db().delete(sheetDrafts).where(eq(sheetDrafts.key, key)).run(); // prettier-ignore

/**
 * The second person signs: the draft becomes the next version, for good.
 *
 * @throws SheetRefusal when the signer wrote the draft, or when a field is still wrong
 */
export function checkDraft(key: string, person: Person): Sheet {
  return db().transaction(
    () => {
      const draft = findDraft(key);
      if (!draft) throw new SheetRefusal("This draft is gone: it was checked or thrown away meanwhile.");
      if (draft.editedBy === person.id)
        throw new SheetRefusal(
          "source.checkedBy: must be a second person. You wrote this draft; have a colleague sign in and check it.",
        );
      if (draft.problems.length > 0)
        throw new SheetRefusal(`${draft.problems[0]!.field}: ${draft.problems[0]!.message}`);
      const id = String(draft.doc.id);
      const version = (sheetVersions(id)[0]?.version ?? 0) + 1;
      const sheet = signSheet(draft.doc, version, person.name, new Date().toISOString().slice(0, 10));
      db().insert(sheets).values({ id, version, doc: sheet }).run();
      discardDraft(key);
      return sheet;
    },
    { behavior: "immediate" },
  );
}

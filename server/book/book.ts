import { and, desc, eq, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import { differences, type Draft, type Problem } from "@/core/book";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { drafts, draftWriters, people } from "../db/schema";
import { noteShop } from "../log/shop";
import { shopDay } from "../shop/clock";
import { plainFile } from "./file-text";

/** The request does not fit the shop's book. The message names the field and the remedy. */
export class BookRefusal extends Refusal {
  override readonly name = "BookRefusal";
}

/** How the id of a document begins that was begun from nothing and never signed. */
const UNNAMED = "new-";

export type DraftRow = {
  key: string;
  doc: Draft;
  editedBy: string;
  editorName: string;
  updatedAt: string;
  /** Grows with each writing. */
  revision: number;
  /** Ids of everybody who wrote a figure of it: none of them may check it. */
  writers: string[];
  problems: Problem[];
};

/** One kind of document the shop keeps in versions that never change. */
export type BookKind<T> = {
  kind: "sheet" | "vehicle";
  /** All versions, newest first. */
  versions: (id: string) => T[];
  insert: (id: string, version: number, doc: T) => void;
  idOf: (doc: T) => string;
  versionOf: (doc: T) => number;
  /** A draft written in an older format, in today's. */
  upcast?: (draft: Draft) => Draft;
  problems: (draft: Draft) => Problem[];
  read: (json: unknown) => { ok: true; doc: T } | { ok: false; problems: string[] };
  /** The draft with the name of whoever wrote it last. */
  enter: (draft: Draft, name: string) => Draft;
  sign: (draft: Draft, version: number, checkedBy: string, checkedOn: string) => T;
  /** What a document begins as that nobody has written anything into. */
  blank: Draft;
  /** What a document is called; its id is made from that when it is signed for the first time. */
  called: (draft: Draft) => string;
  /** Where the second person's name stands, for the refusal. */
  signatureField: string;
};

/** A book: drafts are written, a second person signs, what is signed never changes. */
export function makeBook<T>(k: BookKind<T>) {
  const noun = k.kind;
  const select = () =>
    db()
      .select({
        key: drafts.key,
        doc: drafts.doc,
        editedBy: drafts.editedBy,
        editorName: people.name,
        updatedAt: drafts.updatedAt,
        revision: drafts.revision,
      })
      .from(drafts)
      .innerJoin(people, eq(people.id, drafts.editedBy));
  const writersOf = (key: string): { id: string; name: string }[] =>
    db()
      .select({ id: people.id, name: people.name })
      .from(draftWriters)
      .innerJoin(people, eq(people.id, draftWriters.personId))
      .where(eq(draftWriters.draftKey, key))
      .orderBy(sql`draft_writers.rowid`)
      .all();
  const judged = (r: Omit<DraftRow, "problems" | "writers">): DraftRow => {
    const doc = k.upcast?.(r.doc) ?? r.doc;
    return { ...r, doc, writers: writersOf(r.key).map((w) => w.id), problems: k.problems(doc) };
  };
  const noteWriter = (key: string, person: Person): void =>
    void db()
      .insert(draftWriters)
      .values({ draftKey: key, personId: person.id })
      .onConflictDoNothing()
      .run();
  const namesOf = (key: string): string =>
    writersOf(key)
      .map((w) => w.name)
      .join(", ");
  const gone = (): BookRefusal =>
    new BookRefusal("This draft is gone: it was checked or thrown away meanwhile.");

  const insertDraft = (doc: Draft, person: Person): string => {
    const key = nanoid(12);
    const updatedAt = new Date().toISOString();
    db().transaction(() => {
      db()
        .insert(drafts)
        .values({ key, kind: noun, doc: k.enter(doc, person.name), editedBy: person.id, updatedAt })
        .run();
      noteWriter(key, person);
    });
    return key;
  };
  const findDraft = (key: string): DraftRow | null => {
    const row = select()
      .where(and(eq(drafts.key, key), eq(drafts.kind, noun)))
      .get();
    return row ? judged(row) : null;
  };
  /** A readable id that no document has yet: "Tarn, forward camera" is tarn-forward-camera. */
  const freshId = (name: string): string => {
    const plain = name
      .normalize("NFD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 48);
    const taken = (id: string): boolean => k.versions(id).length > 0;
    if (plain && !taken(plain)) return plain;
    let n = 2;
    while (taken(`${plain || noun}-${n}`)) n++;
    return `${plain || noun}-${n}`;
  };
  const discardDraft = (key: string): void => {
    const done = db()
      .delete(drafts)
      .where(and(eq(drafts.key, key), eq(drafts.kind, noun)))
      .run();
    if (done.changes > 0) db().delete(draftWriters).where(eq(draftWriters.draftKey, key)).run();
  };

  return {
    findDraft,
    discardDraft,
    listDrafts: (): DraftRow[] =>
      select().where(eq(drafts.kind, noun)).orderBy(desc(drafts.updatedAt)).all().map(judged),

    /** Begins a document from nothing. It gets its id when it is signed. */
    begin: (person: Person): string =>
      insertDraft(
        { ...k.blank, id: `${UNNAMED}${nanoid(8).toLowerCase().replace(/_/g, "-")}` },
        person,
      ),

    /**
     * Begins a new version.
     *
     * @param changed what is different in it from the beginning
     * @throws BookRefusal when there is no such document
     */
    draftFrom(
      id: string,
      person: Person,
      changed: (newest: T) => Draft | null = () => null,
    ): string {
      const [newest] = k.versions(id);
      if (!newest) throw new BookRefusal(`There is no such ${noun}. Go back to the list.`);
      const doc = changed(newest) ?? newest;
      return insertDraft({ ...doc, version: k.versionOf(newest) + 1 }, person);
    },

    /** Begins a new document from one that is there, under an id of its own. @throws BookRefusal */
    copyFrom(id: string, person: Person): string {
      const [newest] = k.versions(id);
      if (!newest) throw new BookRefusal(`There is no such ${noun}. Go back to the list.`);
      let n = 2;
      while (k.versions(`${id}-${n}`).length > 0) n++;
      return insertDraft({ ...newest, id: `${id}-${n}`, version: 1 }, person);
    },

    /**
     * Takes a document from a file. It becomes a draft: this shop's own second person checks it
     * before it is used.
     *
     * @throws BookRefusal when it is no JSON, no such document, or claims to be a checked version
     *   and differs from it
     */
    importFile(text: string, person: Person): string {
      let json: unknown;
      try {
        json = JSON.parse(plainFile(text));
      } catch (error) {
        throw new BookRefusal(
          `The file is not JSON: ${error instanceof Error ? error.message : "it cannot be read"}.`,
        );
      }
      const read = k.read(json);
      if (!read.ok)
        throw new BookRefusal(
          `The file is not a ${noun} that can be used. ${read.problems.slice(0, 3).join("; ")}`,
        );
      const [id, version] = [k.idOf(read.doc), k.versionOf(read.doc)];
      const versions = k.versions(id);
      const same = versions.find((v) => k.versionOf(v) === version);
      if (same) {
        const [first] = differences(same, read.doc);
        if (!first)
          throw new BookRefusal(
            `Version ${version} of "${id}" is already in the book, word for word.`,
          );
        throw new BookRefusal(
          `Version ${version} of "${id}" was checked and never changes, but ${first.path} differs (${first.before} there, ${first.after} here). Give the file version ${k.versionOf(versions[0]!) + 1}.`,
        );
      }
      return insertDraft(read.doc as Draft, person);
    },

    /**
     * Puts an example into the book as it stands, signatures included; one that is there stays. It
     * says itself that it is made up: nobody checks it.
     *
     * @throws BookRefusal when the file is none
     */
    takeExample(text: string): void {
      const read = k.read(JSON.parse(plainFile(text)));
      if (!read.ok) throw new BookRefusal(read.problems[0]!);
      const [id, version] = [k.idOf(read.doc), k.versionOf(read.doc)];
      if (k.versions(id).length === 0) k.insert(id, version, read.doc);
    },

    /**
     * Keeps what was typed so far, whatever it is; problems do not stop saving, only checking. Who
     * changes nothing has written nothing, and may still check it.
     *
     * @param revision the state of the draft that was on the page; another's writing since then is
     *   a conflict
     * @throws BookRefusal
     */
    saveDraft(key: string, given: unknown, person: Person, revision?: number): DraftRow {
      if (typeof given !== "object" || given === null || Array.isArray(given))
        throw new BookRefusal(`This is no ${noun}. Reload the page; what was kept is still there.`);
      return db().transaction(
        () => {
          const draft = findDraft(key);
          if (!draft) throw gone();
          const doc = given as Draft;
          if (differences(k.enter(draft.doc, ""), k.enter(doc, "")).length === 0) return draft;
          if (revision !== undefined && revision !== draft.revision && draft.editedBy !== person.id)
            throw new BookRefusal(
              `${draft.editorName} wrote to this draft meanwhile. Reload the page, then enter yours again.`,
            );
          noteWriter(key, person);
          const written = {
            doc: k.enter(doc, namesOf(key)),
            editedBy: person.id,
            updatedAt: new Date().toISOString(),
          };
          db()
            .update(drafts)
            .set({ ...written, revision: draft.revision + 1 })
            .where(eq(drafts.key, key))
            .run();
          return findDraft(key)!;
        },
        { behavior: "immediate" },
      );
    },

    /**
     * The second person signs: the draft becomes the next version, for good.
     *
     * @throws BookRefusal when the signer wrote the draft, or when a field is still wrong
     */
    checkDraft(key: string, person: Person): T {
      return db().transaction(
        () => {
          const draft = findDraft(key);
          if (!draft) throw gone();
          if (draft.writers.includes(person.id))
            throw new BookRefusal(
              `${k.signatureField}: must be a second person. You wrote in this draft; have a colleague who did not sign in and check it.`,
            );
          if (draft.problems.length > 0)
            throw new BookRefusal(`${draft.problems[0]!.field}: ${draft.problems[0]!.message}`);
          const id = String(draft.doc.id).startsWith(UNNAMED)
            ? freshId(k.called(draft.doc))
            : String(draft.doc.id);
          const [newest] = k.versions(id);
          const version = (newest ? k.versionOf(newest) : 0) + 1;
          const doc = k.sign({ ...draft.doc, id }, version, person.name, shopDay());
          k.insert(id, version, doc);
          discardDraft(key);
          noteShop(person, { kind: "book", book: noun, id, version });
          return doc;
        },
        { behavior: "immediate" },
      );
    },
  };
}

"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { differences, type Draft, type Problem } from "@/core/book";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { FieldName } from "./field-name";
import { getAt, setAt } from "./paths";
import { UndoBar } from "./undo-bar";
import { useDocument } from "./use-document";

type Answer<T> = Promise<({ ok: true } & T) | { ok: false; message: string }>;

/** What the page of one draft hands to its editor. */
export type DraftPage = {
  draft: {
    key: string;
    doc: Draft;
    editedBy: string;
    editorName: string;
    revision: number;
    writers: string[];
  };
  /** The version in use, or null for a new document. */
  base: { version?: number } | null;
  me: { id: string; role: string };
  keep: (
    key: string,
    doc: Draft,
    revision: number,
  ) => Answer<{ problems: Problem[]; revision: number }>;
  sign: (key: string) => Answer<{ id: string }>;
  drop: (key: string) => Answer<object>;
};

/** One field of the draft, as the field components take it. */
export type AtPath = (path: string) => {
  path: string;
  value: unknown;
  problem: string | null;
  readOnly: boolean;
  onChange: (value: unknown) => void;
};
type Pen = {
  doc: Draft;
  problems: Problem[];
  readOnly: boolean;
  at: AtPath;
  /** A value at a path of the document; the whole document at "". */
  change: (path: string, value: unknown) => void;
};

const OFFLINE = {
  ok: false as const,
  message: "The shop does not answer. Try again when it is back.",
};

/**
 * Writes a document of the shop's book: every change kept, problems named as they arise,
 * differences from the version in use beside it; a second person then signs.
 */
export function DraftEditor({
  draft,
  base,
  me,
  keep,
  sign,
  drop,
  home,
  problemsOf,
  nameOf,
  signatures,
  follow = (doc) => doc,
  children,
}: DraftPage & {
  home: { href: string; name: string };
  problemsOf: (doc: Draft) => Problem[];
  /** A field as people call it. */
  nameOf: (path: string) => string;
  /** Paths that signing itself changes; they are no difference. */
  signatures: readonly string[];
  /** What else changes with a field: figures that follow from others. */
  follow?: (doc: Draft) => Draft;
  children: (pen: Pen) => ReactNode;
}) {
  const router = useRouter();
  // The shop keeps the draft itself; what is taken back here is kept there like any change.
  const { doc, change: alter, undo, canUndo } = useDocument(null, draft.doc);
  const [wrote, setWrote] = useState(draft.writers.includes(me.id));
  const revision = useRef(draft.revision);
  const atShop = useRef(draft.doc);
  const [kept, setKept] = useState<"kept" | "keeping" | "not kept">("kept");
  const [message, setMessage] = useState<string | null>(null);
  const problems = useMemo(() => problemsOf(doc), [doc, problemsOf]);
  const changes = useMemo(
    () =>
      base
        ? differences(base, doc).filter((d) => !["version", ...signatures].includes(d.path))
        : [],
    [base, doc, signatures],
  );
  const viewer = me.role === "viewer";
  // In a document that was just begun, what nobody has come to yet is no mistake.
  const unwritten = base ? [] : problems.filter((p) => p.missing);
  const wrong = problems.filter((p) => !unwritten.includes(p));

  // Kept half a second after the last key; a tablet that dies loses no more than that, and says so
  // meanwhile.
  useEffect(() => {
    const timer = setTimeout(() => {
      // Taken back to what the shop has.
      if (doc === atShop.current) return setKept("kept");
      setKept("keeping");
      keep(draft.key, doc, revision.current).then(
        (a) => {
          setKept(a.ok ? "kept" : "not kept");
          if (!a.ok) return setMessage(a.message);
          revision.current = a.revision;
          atShop.current = doc;
        },
        () => setKept("not kept"),
      );
    }, 500);
    return () => clearTimeout(timer);
  }, [doc, draft.key, keep]);

  const change = (path: string, value: unknown): void => {
    setKept("keeping");
    setWrote(true);
    setMessage(null);
    alter(path, (d) => follow(path === "" ? (value as Draft) : setAt(d, path, value)));
  };
  const at: AtPath = (path) => ({
    path,
    value: getAt(doc, path),
    problem: wrong.find((p) => p.field === path || p.field.startsWith(`${path}.`))?.message ?? null,
    readOnly: viewer,
    onChange: (v) => change(path, v),
  });
  const second = !wrote && !viewer;

  const finish = async (): Promise<void> => {
    const answer = await sign(draft.key).catch(() => OFFLINE);
    if (answer.ok) router.push(`${home.href}/${answer.id}`);
    else setMessage(answer.message);
  };
  const throwAway = async (): Promise<void> => {
    const answer = await drop(draft.key).catch(() => OFFLINE);
    if (answer.ok) router.push(home.href);
    else setMessage(answer.message);
  };

  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <main className="mx-auto grid w-full max-w-[1240px] flex-1 content-start gap-x-10 gap-y-4 px-3 py-4 lg:grid-cols-[1fr_340px] lg:px-6">
        <div className="flex min-w-0 flex-col gap-4">
          <p className="text-base text-soft">
            <Link href={home.href} className="font-semibold text-act underline underline-offset-4">
              {home.name}
            </Link>{" "}
            · draft of version {String(doc.version ?? 1)} · {kept}
          </p>
          {!viewer && (
            <UndoBar
              can={canUndo}
              restored={false}
              onUndo={() => {
                setKept("keeping");
                undo();
              }}
            />
          )}
          {children({ doc, problems, readOnly: viewer, at, change })}
        </div>
        <aside className="flex flex-col gap-4">
          <section
            aria-label="To put right"
            className={`border-l-4 bg-sheet p-3 ${wrong.length > 0 ? "border-stop" : "border-settled"}`}
          >
            <h2 className="text-lg font-semibold">
              {wrong.length === 0 ? "Nothing to put right" : `${wrong.length} to put right`}
            </h2>
            <ul className="mt-1 flex flex-col gap-2">
              {wrong.map((p) => (
                <li key={p.field + p.message} className="text-base leading-snug">
                  <span className="font-semibold text-stop">{nameOf(p.field)}</span> {p.message}
                </li>
              ))}
            </ul>
          </section>
          {unwritten.length > 0 && (
            <section
              aria-label="Still to enter"
              className="border-l-4 border-dashed border-loose bg-sheet p-3"
            >
              <h2 className="text-lg font-semibold">{unwritten.length} still to enter</h2>
              <p className="mt-1 text-base leading-snug text-soft">
                {[...new Set(unwritten.map((p) => nameOf(p.field)))].join(", ")}
              </p>
            </section>
          )}
          <section aria-label="What changed" className="border-l-4 border-loose bg-sheet p-3">
            <h2 className="text-lg font-semibold">
              {base ? `Against version ${base.version ?? 1}` : "Not in use yet"}
            </h2>
            {base && changes.length === 0 && <p className="text-base text-soft">No change yet.</p>}
            <ul className="mt-1 flex flex-col gap-2">
              {changes.map((d) => (
                <li key={d.path} className="text-base leading-snug [overflow-wrap:anywhere]">
                  <FieldName path={d.path} nameOf={nameOf} />{" "}
                  <span className="text-soft line-through">{d.before}</span> {d.after}
                </li>
              ))}
            </ul>
          </section>
        </aside>
      </main>
      <div className="sticky bottom-0">
        {message && (
          <p role="alert" className="border-t-4 border-stop bg-sheet px-4 py-2 text-lg text-stop">
            {message}
          </p>
        )}
        <NextBar
          tone={wrong.length > 0 ? "stop" : unwritten.length > 0 || second ? "act" : "loose"}
          say={
            wrong.length > 0
              ? `Put right ${nameOf(wrong[0]!.field)}.`
              : unwritten.length > 0
                ? `Enter ${nameOf(unwritten[0]!.field)}.`
                : second
                  ? "Compare every figure with the source, then sign."
                  : "A second person checks it now: sign in as someone else and open this draft."
          }
          detail={
            wrong.length > 0
              ? wrong[0]!.message
              : unwritten.length > 0
                ? "What is typed is kept as you go; it can wait half done."
                : "A checked version never changes; a later one is a new version."
          }
        >
          {!viewer && (
            <Button look="quiet" size="large" onClick={() => void throwAway()}>
              Throw away
            </Button>
          )}
          {second && (
            <Button
              look="act"
              size="large"
              disabled={problems.length > 0 || kept !== "kept"}
              onClick={() => void finish()}
            >
              I have checked it
            </Button>
          )}
        </NextBar>
      </div>
    </div>
  );
}

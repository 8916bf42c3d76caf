"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { EVENTS, type EventId } from "@/core/owed";
import {
  differences,
  DISTANCE_FROM_NAMES,
  draftProblems,
  fieldName,
  type Sheet,
  type SheetDraft,
  type SheetProblem,
} from "@/core/sheet";
import { DATUM_NAMES } from "@/core/vehicle";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { ChoiceField, NumberField, SetField, TextField } from "./fields";
import { CheckList } from "./check-list";
import { StepList } from "./step-list";
import { getAt, setAt } from "./paths";

type Answer<T> = Promise<({ ok: true } & T) | { ok: false; message: string }>;
type Props = {
  draft: { key: string; doc: SheetDraft; editedBy: string; editorName: string };
  base: Sheet | null;
  vehicles: { id: string; name: string }[];
  me: { id: string; role: string };
  keep: (key: string, doc: SheetDraft) => Answer<{ problems: SheetProblem[] }>;
  sign: (key: string) => Answer<{ id: string; version: number }>;
  drop: (key: string) => Answer<object>;
};

/** Writes a sheet with its problems named as they arise; a second person then checks it, difference by difference. */
export function SheetEditor({ draft, base, vehicles, me, keep, sign, drop }: Props) {
  const router = useRouter();
  const [doc, setDoc] = useState(draft.doc);
  const [editor, setEditor] = useState(draft.editedBy);
  const [kept, setKept] = useState<"kept" | "keeping" | "not kept">("kept");
  const [message, setMessage] = useState<string | null>(null);
  const problems = useMemo(() => draftProblems(doc), [doc]);
  const changes = useMemo(
    () =>
      base
        ? differences(base, doc).filter(
            (d) => !["version", "source.enteredBy", "source.checkedBy", "source.checkedOn"].includes(d.path),
          )
        : [],
    [base, doc],
  );
  const viewer = me.role === "viewer";

  // Kept half a second after the last key; a tablet that dies loses no more than that, and says so meanwhile.
  useEffect(() => {
    if (doc === draft.doc) return;
    const timer = setTimeout(() => {
      setKept("keeping");
      keep(draft.key, doc).then(
        (a) => {
          setKept(a.ok ? "kept" : "not kept");
          if (!a.ok) setMessage(a.message);
        },
        () => setKept("not kept"),
      );
    }, 500);
    return () => clearTimeout(timer);
  }, [doc, draft.doc, draft.key, keep]);

  const change = (path: string, value: unknown): void => {
    setKept("keeping");
    setEditor(me.id);
    setMessage(null);
    setDoc((d) => setAt(d, path, value));
  };
  const at = (path: string) => ({
    path,
    value: getAt(doc, path),
    problem: problems.find((p) => p.field === path || p.field.startsWith(`${path}.`))?.message ?? null,
    readOnly: viewer,
    onChange: (v: unknown) => change(path, v),
  });
  const second = editor !== me.id && !viewer;

  const finish = async (): Promise<void> => {
    const answer = await sign(draft.key).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Try again when it is back.",
    }));
    if (answer.ok) router.push(`/sheets/${answer.id}`);
    else setMessage(answer.message);
  };
  const throwAway = async (): Promise<void> => {
    const answer = await drop(draft.key).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Try again when it is back.",
    }));
    if (answer.ok) router.push("/sheets");
    else setMessage(answer.message);
  };

  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <main className="mx-auto grid w-full max-w-[1240px] flex-1 content-start gap-x-10 gap-y-4 px-3 py-4 lg:grid-cols-[1fr_340px] lg:px-6">
        <div className="flex min-w-0 flex-col gap-4">
          <p className="text-base text-soft">
            <Link href="/sheets" className="font-semibold text-act underline underline-offset-4">
              Sheets
            </Link>{" "}
            · draft of version {String(doc.version ?? 1)} · {kept}
          </p>
          <TextField label="Title" large {...at("title")} />
          <TextField label="Why it is owed, in one sentence for the customer" {...at("reason")} />
          <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
            <ChoiceField label="Line the board is placed on" choices={Object.entries(DATUM_NAMES)} {...at("datum")} />
            <ChoiceField label="Distance counts from" choices={Object.entries(DISTANCE_FROM_NAMES)} {...at("distanceFrom")} />
          </div>
          <div className="grid grid-cols-2 gap-x-6 gap-y-2 border-y-2 border-ink py-3 lg:grid-cols-4">
            <NumberField label="Ahead" unit="mm" {...at("placement.alongMm")} />
            <NumberField label="Across, left +" unit="mm" {...at("placement.acrossMm")} />
            <NumberField label="Twist" unit="°" {...at("placement.twistDeg")} />
            <NumberField label="Centre height" unit="mm" {...at("placement.heightMm")} />
            <NumberField label="± ahead" unit="mm" {...at("tolerance.alongMm")} />
            <NumberField label="± across" unit="mm" {...at("tolerance.acrossMm")} />
            <NumberField label="± twist" unit="°" {...at("tolerance.twistDeg")} />
            <NumberField label="± height" unit="mm" {...at("tolerance.heightMm")} />
          </div>
          <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
            <TextField label="Board code" {...at("board.code")} />
            <NumberField label="Board width" unit="mm" {...at("board.widthMm")} />
            <TextField label="Source: whose information" {...at("source.name")} />
            <TextField label="Source: its date, year-month-day" {...at("source.date")} />
          </div>
          <SetField label="For these vehicles" choices={vehicles.map((v) => [v.id, v.name])} {...at("appliesTo.vehicles")} />
          <SetField label="Owed after" choices={(Object.keys(EVENTS) as EventId[]).map((e) => [e, EVENTS[e]])} {...at("appliesTo.after")} />
          <CheckList stage="ready" doc={doc} problems={problems} readOnly={viewer} onChange={change} />
          <StepList doc={doc} problems={problems} readOnly={viewer} onChange={change} />
          <CheckList stage="prove" doc={doc} problems={problems} readOnly={viewer} onChange={change} />
        </div>
        <aside className="flex flex-col gap-4">
          <section aria-label="To put right" className={`border-l-4 bg-sheet p-3 ${problems.length > 0 ? "border-stop" : "border-settled"}`}>
            <h2 className="text-lg font-semibold">{problems.length === 0 ? "Nothing to put right" : `${problems.length} to put right`}</h2>
            <ul className="mt-1 flex flex-col gap-2">
              {problems.map((p) => (
                <li key={p.field + p.message} className="text-base leading-snug">
                  <span className="font-semibold text-stop">{fieldName(p.field)}</span> {p.message}
                </li>
              ))}
            </ul>
          </section>
          <section aria-label="What changed" className="border-l-4 border-loose bg-sheet p-3">
            <h2 className="text-lg font-semibold">{base ? `Against version ${base.version}` : "A new sheet"}</h2>
            {base && changes.length === 0 && <p className="text-base text-soft">No change yet.</p>}
            <ul className="mt-1 flex flex-col gap-2">
              {changes.map((d) => (
                <li key={d.path} className="text-base leading-snug [overflow-wrap:anywhere]">
                  <span className="figure whitespace-normal text-sm text-soft">{d.path}</span> <span className="text-soft line-through">{d.before}</span> {d.after}
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
          tone={problems.length > 0 ? "stop" : second ? "act" : "loose"}
          say={problems.length > 0 ? `Put right ${fieldName(problems[0]!.field)}.` : second ? "Compare every figure with the source, then sign." : "A second person checks it now: sign in as someone else and open this draft."}
          detail={problems.length > 0 ? problems[0]!.message : "A checked version never changes; a later one is a new version."}
        >
          {!viewer && (
            <Button look="quiet" size="large" onClick={() => void throwAway()}>
              Throw away
            </Button>
          )}
          {second && (
            <Button look="act" size="large" disabled={problems.length > 0 || kept !== "kept"} onClick={() => void finish()}>
              I have checked it
            </Button>
          )}
        </NextBar>
      </div>
    </div>
  ); // prettier-ignore
}

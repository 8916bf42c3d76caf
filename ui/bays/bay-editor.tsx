"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import type { Bay } from "@/core/space/bay";
import { added, without, type Hold } from "@/core/space/draw";
import { bayFromDxf, DrawingError } from "@/core/space/drawing-file";
import { formatNumber } from "@/core/units";
import { NumberField, TextField } from "../book/fields";
import { UndoBar } from "../book/undo-bar";
import { useDocument } from "../book/use-document";
import { WhenAwake } from "../primitives/awake";
import { Button } from "../primitives/button";
import { FileButton } from "../primitives/file-button";
import { SaidLine, type Said } from "../primitives/said-line";
import { BayCanvas, holdName } from "./bay-canvas";
import { FloorSurvey, levelsOf } from "./floor-survey";
import { HoldFields } from "./hold-fields";

const SILENT = "The shop does not answer. What you drew is kept here; try again when it is back.";

const NEW: readonly [Hold["kind"], string][] = [
  ["corner", "Corner"],
  ["thing", "Thing"],
  ["door", "Door"],
  ["light", "Light"],
  ["likeness", "Looks like a target"],
];

/** One bay to draw and to survey. */
export function BayEditor({
  kept,
  today,
  readOnly,
}: {
  kept: Bay;
  today: string;
  readOnly: boolean;
}) {
  const router = useRouter();
  // With what the shop had when it was begun: what is found again later may be older than the shop's.
  const { doc, change, undo, canUndo, restored, letGo } = useDocument<{ bay: Bay; was: Bay }>(
    readOnly ? null : `bay/${kept.id}`,
    { bay: kept, was: kept },
  );
  const { bay } = doc;
  /** What was kept last from here. */
  const [base, setBase] = useState<Bay | null>(null);
  const was = base ?? doc.was;
  const [held, setHeld] = useState<Hold | null>(null);
  const [floor, setFloor] = useState(false);
  const [said, setSaid] = useState<Said | null>(null);
  /** Somebody else has kept another meanwhile. */
  const [other, setOther] = useState(false);
  const hold = held && exists(bay, held) ? held : null;
  const put = (where: string, next: Bay): void => {
    setSaid(null);
    change(where, () => ({ bay: next, was }));
  };
  const marks = useMemo(() => marksOf(bay), [bay]);
  /** Goes on with what the shop has now; what was drawn can be had back by Undo. */
  const goOnWith = (mine: Bay): void => {
    change("theirs", () => ({ bay: mine, was: kept }));
    setBase(null);
    setOther(false);
    setSaid(null);
  };
  const keep = async (): Promise<void> => {
    const answer = await fetch(`/api/bays/${kept.id}`, {
      method: "PUT",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ bay, was }),
    }).catch(() => null);
    if (!answer) return setSaid({ ok: false, words: SILENT });
    if (!answer.ok) {
      const { error } = (await answer.json()) as { error?: string };
      if (answer.status === 409) {
        setOther(true);
        router.refresh();
      }
      return setSaid({ ok: false, words: error ?? SILENT });
    }
    setBase(bay);
    letGo();
    setSaid({ ok: true, words: `${bay.name} is kept.` });
    router.refresh();
  };
  const take = (text: string): void => {
    try {
      put("drawing", bayFromDxf(text, bay));
      setHeld(null);
      setSaid({ ok: true, words: "The drawing is taken in. Look it over, then keep it." });
    } catch (error) {
      if (!(error instanceof DrawingError)) throw error;
      setSaid({ ok: false, words: error.message });
    }
  };
  const add = (kind: Hold["kind"]): void => {
    const [xs, ys] = [bay.outline.map((c) => c[0]), bay.outline.map((c) => c[1])];
    const middle = (of: number[]): number => (Math.min(...of) + Math.max(...of)) / 2;
    const is = added(bay, kind, [middle(xs), middle(ys)], today);
    put(`add/${kind}`, is.bay);
    setHeld(is.hold);
  };
  const drop = (): void => {
    if (!hold) return;
    put("delete", without(bay, hold));
    setHeld(null);
  };
  return (
    <main className="mx-auto w-full max-w-[1400px] flex-1 px-3 py-4 lg:px-6">
      <WhenAwake>
        <header className="flex flex-wrap items-center gap-2">
          <h1 className="mr-auto text-4xl font-semibold">
            <Link href="/bays" className="text-soft underline">
              Bays
            </Link>{" "}
            / {bay.name}
          </h1>
          {(["dxf", "svg"] as const).map((as) => (
            <a
              key={as}
              href={`/api/bays/${kept.id}?as=${as}`}
              download
              className="inline-flex min-h-12 items-center px-3 text-base font-semibold"
            >
              {as.toUpperCase()}
            </a>
          ))}
          {!readOnly && (
            <>
              <FileButton
                noun="drawing"
                accept=".dxf"
                say="Take in a DXF"
                look="quiet"
                onText={take}
              />
              <Button
                look="act"
                disabled={JSON.stringify(bay) === JSON.stringify(was)}
                onClick={() => void keep()}
              >
                Keep the bay
              </Button>
            </>
          )}
        </header>
        <SaidLine said={said} />
        {other && (
          <p className="flex flex-wrap gap-2">
            <Button onClick={() => goOnWith(bay)}>Mine is right</Button>
            <Button look="quiet" onClick={() => goOnWith(kept)}>
              Go on with theirs
            </Button>
          </p>
        )}
        {!readOnly && <UndoBar can={canUndo} restored={restored} onUndo={undo} />}
        <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_24rem]">
          <div className="bg-sheet p-3">
            <BayCanvas
              bay={bay}
              floor={floor}
              held={hold}
              marks={marks}
              onHold={setHeld}
              onChange={readOnly ? () => {} : put}
            />
            <p className="text-base text-soft">
              Drag, or Tab to a part and move it with the arrows: 10 mm, with Shift 100. Delete
              takes it out.
            </p>
          </div>
          <section aria-label="What is held" className="flex flex-col gap-3 bg-sheet p-4">
            <div className="flex gap-1" role="group" aria-label="What is worked at">
              {[
                ["Room", false],
                ["Floor", true],
              ].map(([name, is]) => (
                <Button
                  key={String(name)}
                  look={floor === is ? "lit" : "tool"}
                  aria-pressed={floor === is}
                  onClick={() => {
                    setFloor(is as boolean);
                    setHeld(null);
                  }}
                >
                  {name}
                </Button>
              ))}
            </div>
            {floor ? (
              <FloorSurvey
                bay={bay}
                held={hold}
                today={today}
                readOnly={readOnly}
                onHold={setHeld}
                onChange={put}
              />
            ) : (
              !readOnly && (
                <div className="flex flex-wrap items-center gap-1" role="group" aria-label="Add">
                  <span className="text-base text-soft">Add</span>
                  {NEW.map(([kind, name]) => (
                    <Button key={kind} look="tool" onClick={() => add(kind)}>
                      {name}
                    </Button>
                  ))}
                </div>
              )
            )}
            {floor && !readOnly && bay.floor && (
              <Button look="tool" onClick={() => add("spot")}>
                Add a spot
              </Button>
            )}
            {hold ? (
              <div className="border-t-2 border-ink pt-3">
                <div className="flex items-center justify-between">
                  <h2 className="text-xl font-semibold">{holdName(bay, hold)}</h2>
                  {!readOnly && (
                    <Button look="faint" onClick={drop}>
                      Take out
                    </Button>
                  )}
                </div>
                <HoldFields
                  key={`${hold.kind}${hold.i}`}
                  bay={bay}
                  hold={hold}
                  readOnly={readOnly}
                  onChange={put}
                />
              </div>
            ) : (
              !floor && <WholeBay bay={bay} readOnly={readOnly} onChange={put} />
            )}
          </section>
        </div>
      </WhenAwake>
    </main>
  );
}

/** What belongs to all of the bay: its name, its usual light. */
function WholeBay({
  bay,
  readOnly,
  onChange,
}: {
  bay: Bay;
  readOnly: boolean;
  onChange: (where: string, bay: Bay) => void;
}) {
  const field = { path: "", problem: null, readOnly };
  return (
    <div className="flex flex-col gap-2 border-t-2 border-ink pt-3">
      <TextField
        label="Its name"
        {...field}
        value={bay.name}
        onChange={(v) => onChange("name", { ...bay, name: (v as string | undefined) ?? "" })}
      />
      <NumberField
        label="Usual light where targets stand, lux"
        unit=""
        {...field}
        value={bay.usualLux ?? undefined}
        onChange={(v) => onChange("lux", { ...bay, usualLux: typeof v === "number" ? v : null })}
      />
      <NumberField
        label="How well its corners are known, mm"
        unit=""
        {...field}
        value={bay.wallsMm}
        onChange={(v) =>
          typeof v === "number" && v >= 1 && v <= 500
            ? onChange("walls", { ...bay, wallsMm: v })
            : undefined
        }
      />
    </div>
  );
}

/** Whether what is held is still there after something was taken back. */
const exists = (bay: Bay, { kind, i }: Hold): boolean =>
  i <
  {
    corner: bay.outline,
    thing: bay.obstacles,
    door: bay.doors,
    light: bay.lights,
    likeness: bay.likenesses,
    spot: bay.floor?.spots ?? [],
  }[kind].length;

/** The height of each spot beside it; the one that does not agree is marked. */
function marksOf(bay: Bay): ReadonlyMap<number, { words: string; loose: boolean }> {
  const { levels } = levelsOf(bay);
  return new Map(
    levels?.heights.map((h) => [
      h.spot,
      {
        words: `${h.heightMm >= 0 ? "+" : "−"}${formatNumber(Math.abs(h.heightMm), 1)}`,
        loose: levels.suspect?.spot === h.spot,
      },
    ]),
  );
}

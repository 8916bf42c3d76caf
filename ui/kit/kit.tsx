"use client";

import { useRouter } from "next/navigation";
import { useState, type ComponentProps, type ReactNode } from "react";
import {
  WIDENED,
  type Board,
  type CheckedInstrument,
  isOver,
  toolEnds,
  toolEndWords,
  type KitKind,
  type ShopTool,
  type ZeroJudgement,
} from "@/core/kit";
import type { Stand } from "@/core/setout";
import { dayInWords, formatNumber, radToDeg } from "@/core/units";
import { fits } from "@/core/book/fits";
import { FindField } from "../lists/find-field";
import { ListTable, type Column } from "../lists/list-table";
import { ReasonDialog } from "../owed/reason-dialog";
import { Button } from "../primitives/button";
import { FileButton } from "../primitives/file-button";
import { Mark, type MarkState } from "../primitives/marks";
import { EditKit, type Editing } from "./edit-kit";
import { FeedToken } from "./feed-token";
import { InstrumentWorth } from "./worth";
import { ZeroCheck } from "./zero-check";
import { useTimes } from "../settings";

type StandRow = {
  id: string;
  name: string;
  doc: Stand;
  today: boolean;
  check: { at: string; by: string; ok: boolean; words: string } | null;
};
type Props = {
  boards: Board[];
  stands: StandRow[];
  instruments: (CheckedInstrument & { overdue: boolean })[];
  tools: ShopTool[];
  /** The shop's calendar day. */
  today: string;
  writes: boolean;
  /** What was looked for before the page was opened. */
  looked: string;
  zero: (
    standId: string,
    readings: Record<string, number>,
  ) => Promise<{ ok: true; judged: ZeroJudgement } | { ok: false; message: string }>;
  checked: (id: string, against: string) => Promise<{ ok: true } | { ok: false; message: string }>;
  write: ComponentProps<typeof EditKit>["write"];
  takeFile: (text: string) => Promise<{ ok: true } | { ok: false; message: string }>;
  feed: ComponentProps<typeof FeedToken>["make"];
  revoke: ComponentProps<typeof FeedToken>["revoke"];
};

const CONDITION: Record<Board["condition"], MarkState> = {
  good: "settled",
  worn: "loose",
  "out of use": "stop",
};

/** What the shop measures and shows with, and whether it may be believed today. */
export function Kit({
  boards,
  stands,
  instruments,
  tools,
  today,
  writes,
  looked,
  zero,
  checked,
  write,
  takeFile,
  feed,
  revoke,
}: Props) {
  const { dateAndTime } = useTimes();
  const router = useRouter();
  const [checking, setChecking] = useState<StandRow | null>(null);
  const [asking, setAsking] = useState<CheckedInstrument | null>(null);
  const [posting, setPosting] = useState<CheckedInstrument | null>(null);
  const [editing, setEditing] = useState<Editing | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const [find, setFind] = useState(looked);
  const take = async (text: string): Promise<void> => {
    const answer = await takeFile(text).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Nothing was changed; try again when it is back.",
    }));
    setMessage(answer.ok ? null : answer.message);
    if (answer.ok) router.refresh();
  };
  const pieces: Piece[] = [
    ...stands.map((s) => standPiece(s, dateAndTime)),
    ...instruments.map(instrumentPiece),
    ...tools.map((t) => toolPiece(t, today)),
    ...boards.map(boardPiece),
  ];
  const shown = pieces.filter((p) => fits([p.code, p.name, p.state, p.detail].join(" "), find));
  const actsOf = (piece: Piece): ReactNode => {
    switch (piece.kind) {
      case "stand":
        return (
          <Button
            look={piece.row.today ? "quiet" : "act"}
            aria-label={`Zero check of ${piece.name}`}
            onClick={() => setChecking(piece.row)}
          >
            Zero check
          </Button>
        );
      case "instrument":
        return (
          <>
            <Button
              look="quiet"
              aria-label={`Posts of ${piece.code}`}
              onClick={() => setPosting(piece.row)}
            >
              Posts
            </Button>
            <Button
              look={piece.row.overdue ? "plain" : "quiet"}
              aria-label={`${piece.code} checked today`}
              onClick={() => setAsking(piece.row)}
            >
              Checked today
            </Button>
          </>
        );
      case "tool":
      case "board":
        return null;
    }
  };
  const acts: Column<Piece> = {
    id: "acts",
    name: "",
    track: "300px",
    under: true,
    cell: (piece) => (
      <span className="-ml-3 flex flex-wrap gap-1 md:ml-0 md:justify-end">
        {actsOf(piece)}
        <Button
          look="quiet"
          aria-label={`Edit ${piece.code}`}
          onClick={() => setEditing({ kind: piece.kind, doc: piece.doc, isNew: false })}
        >
          Edit
        </Button>
      </span>
    ),
  };
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1 px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3">
        <h1 className="text-4xl font-semibold">Kit</h1>
        <FindField
          label="Find a piece of kit"
          placeholder="Find by number, name, state"
          value={find}
          onChange={setFind}
        />
        <span className="flex flex-wrap items-center gap-1">
          <a
            href="/api/kit"
            download
            className="inline-flex min-h-14 items-center rounded-md px-3 font-semibold hover:bg-wash"
          >
            Export
          </a>
          {writes && <FileButton noun="kit" look="quiet" onText={(text) => void take(text)} />}
          <a
            href="/api/kit/labels"
            target="_blank"
            rel="noreferrer"
            className="inline-flex min-h-14 items-center rounded-md border-2 border-ink bg-sheet px-5 text-lg font-semibold hover:bg-wash"
          >
            Print labels
          </a>
        </span>
      </div>
      {message && (
        <p
          role="alert"
          className="mt-3 border-l-4 border-stop bg-sheet px-4 py-3 text-lg text-stop"
        >
          {message}
        </p>
      )}
      {pieces.length > 0 && shown.length === 0 && (
        <p className="py-12 text-center text-xl text-soft">
          No piece of kit fits these words.{" "}
          <Button look="quiet" onClick={() => setFind("")}>
            Show all
          </Button>
        </p>
      )}
      {GROUPS.map(({ kind, title, note, columns }) => {
        const rows = shown.filter((piece) => piece.kind === kind);
        return (
          (find.trim() === "" || rows.length > 0) && (
            <section key={kind} aria-label={title} className="mt-5">
              <div className="flex flex-wrap items-baseline gap-x-4">
                <h2 className="text-2xl font-semibold">{title}</h2>
                <span className="flex-1 text-base text-soft">{note}</span>
                {writes && (
                  <Button
                    look="quiet"
                    aria-label={`New in ${title}`}
                    onClick={() => setEditing({ kind, doc: NEW[kind], isNew: true })}
                  >
                    + New
                  </Button>
                )}
              </div>
              {rows.length > 0 && (
                <ListTable
                  id={`kit-${kind}`}
                  label={title}
                  columns={writes ? [...columns, acts] : columns}
                  rows={rows}
                  keyOf={(piece) => piece.code}
                />
              )}
            </section>
          )
        );
      })}
      <InstrumentWorth />
      <FeedToken
        instrument={posting}
        make={feed}
        revoke={revoke}
        onClose={() => setPosting(null)}
      />
      <EditKit
        editing={editing}
        write={write}
        onClose={(changed) => {
          setEditing(null);
          if (changed) router.refresh();
        }}
      />
      <ZeroCheck
        stand={checking}
        onClose={() => {
          setChecking(null);
          router.refresh();
        }}
        zero={zero}
      />
      <ReasonDialog
        open={asking !== null}
        title="Checked today"
        note={asking ? `${asking.id}, ${asking.name}` : ""}
        label="Against what; this is kept with your name"
        action="It was checked"
        onClose={() => setAsking(null)}
        onReason={(against) => {
          const id = asking!.id;
          setAsking(null);
          checked(id, against).then(
            (a) => (a.ok ? router.refresh() : setMessage(a.message)),
            () =>
              setMessage("The shop does not answer. Nothing was kept; try again when it is back."),
          );
        }}
      />
    </main>
  );
}

/** What a new piece starts from; the rest has to be read off the thing. */
const NEW: Record<KitKind, Record<string, unknown>> = {
  board: { side: "either", version: 1, condition: "good" },
  stand: {
    joints: [],
    boardYMm: 0,
    boardXMm: 0,
    crank: {},
    feet: [
      { xMm: -300, yMm: 0 },
      { xMm: 300, yMm: 350 },
      { xMm: 300, yMm: -350 },
    ],
  },
  instrument: {
    kind: "tape",
    live: "no",
    sigmaMm: 1,
    sigmaMmPerM: 0.2,
    sigmaRad: 0,
    checkedOn: null,
    everyDays: 180,
  },
  tool: { serial: "", updateEveryDays: 90, paidUntil: null, gatewayUntil: null },
};

/** An instrument without what the page adds to it. */
const instrumentDoc = ({
  overdue: _,
  ...doc
}: CheckedInstrument & { overdue: boolean }): Record<string, unknown> => ({ live: "no", ...doc });

/** A piece of kit as a line of its list. */
type Piece = {
  code: string;
  name: string;
  mark: MarkState;
  /** The worst first. */
  rank: number;
  state: string;
  detail: string;
  doc: Record<string, unknown>;
} & (
  | { kind: "stand"; row: StandRow }
  | { kind: "instrument"; row: CheckedInstrument & { overdue: boolean } }
  | { kind: "tool"; row: ShopTool }
  | { kind: "board"; row: Board }
);

const RANK: Partial<Record<MarkState, number>> = { stop: 0, loose: 1, settled: 2 };
const marked = (mark: MarkState) => ({ mark, rank: RANK[mark] ?? 3 });

const standPiece = (s: StandRow, dateAndTime: (iso: string) => string): Piece => ({
  kind: "stand",
  row: s,
  doc: s.doc,
  code: s.id,
  name: s.name,
  ...marked(!s.check || !s.today ? "loose" : s.check.ok ? "settled" : "stop"),
  state: !s.check
    ? "never checked"
    : `${s.today ? "" : "not checked today; last: "}${s.check.words}`,
  detail: s.check ? `${dateAndTime(s.check.at)}, ${s.check.by}` : "",
});

const accuracy = (i: CheckedInstrument): string =>
  i.sigmaRad > 0
    ? `± ${formatNumber(radToDeg(i.sigmaRad), 2)}°`
    : `± ${formatNumber(i.sigmaMm, 1)} mm${i.sigmaMmPerM > 0 ? ` + ${formatNumber(i.sigmaMmPerM, 2)} mm a metre` : ""}`;

const instrumentPiece = (i: CheckedInstrument & { overdue: boolean }): Piece => ({
  kind: "instrument",
  row: i,
  doc: instrumentDoc(i),
  code: i.id,
  name: i.name,
  ...marked(i.overdue ? "loose" : "settled"),
  state: i.overdue
    ? `check overdue${i.checkedOn ? `, last ${dayInWords(i.checkedOn)}` : ""}`
    : i.checkedOn
      ? `checked ${dayInWords(i.checkedOn)}`
      : "never checked",
  detail: accuracy(i),
});

/** What ends first says its state; a shop that meets no gateway reads that there is none registered. */
const toolPiece = (t: ShopTool, today: string): Piece => {
  const [first] = toolEnds(t, today, t.gatewayUntil !== null);
  return {
    kind: "tool",
    row: t,
    doc: t,
    code: t.id,
    name: t.name,
    ...marked(!first ? "settled" : isOver(first) ? "stop" : "loose"),
    state: first ? toolEndWords(t, first) : "nothing of it ends soon",
    detail: `serial ${t.serial || "not given"}, software ${t.software} of ${dayInWords(t.softwareOn)}${t.gatewayUntil ? "" : ", no gateway"}`,
  };
};

const boardPiece = (b: Board): Piece => ({
  kind: "board",
  row: b,
  doc: b,
  code: b.code,
  name: b.name,
  ...marked(b.lentTo && CONDITION[b.condition] === "settled" ? "loose" : CONDITION[b.condition]),
  state: b.lentTo
    ? `${b.condition}, lent to ${b.lentTo}${b.backOn ? ` until ${dayInWords(b.backOn)}` : ""}`
    : b.condition,
  detail: `version ${b.version}, ${formatNumber(b.widthMm)} mm${b.side === "either" ? "" : `, vehicle ${b.side} only`}`,
});

const columnsWith = (detail: string): Column<Piece>[] => [
  { id: "mark", name: "", track: "16px", cell: (p) => <Mark state={p.mark} size={16} /> },
  {
    id: "code",
    name: "Number",
    track: "80px",
    leads: true,
    value: (p) => p.code,
    cell: (p) => <span className="figure text-lg font-semibold">{p.code}</span>,
  },
  {
    id: "name",
    name: "Name",
    track: "1.1fr",
    leads: true,
    value: (p) => p.name,
    cell: (p) => <span className="text-lg leading-tight">{p.name}</span>,
  },
  {
    id: "state",
    name: "State",
    track: "1.1fr",
    value: (p) => `${p.rank} ${p.state}`,
    cell: (p) => p.state,
  },
  {
    id: "detail",
    name: detail,
    track: "1.2fr",
    value: (p) => p.detail,
    cell: (p) => <span className="text-soft">{p.detail}</span>,
  },
];

const GROUPS: { kind: KitKind; title: string; note: string; columns: Column<Piece>[] }[] = [
  {
    kind: "stand",
    title: "Stands",
    note: "Each is checked every morning before its first job.",
    columns: columnsWith("Checked by"),
  },
  {
    kind: "instrument",
    title: "Instruments",
    note: `An overdue one stays usable; its uncertainty then counts ${formatNumber(WIDENED, 1)} times.`,
    columns: columnsWith("Uncertainty"),
  },
  {
    kind: "tool",
    title: "Scan tools",
    note: "Take in says what ends within a fortnight, and what has ended.",
    columns: columnsWith("What it is"),
  },
  {
    kind: "board",
    title: "Boards and mats",
    note: "A worn board is used with care, one out of use not at all.",
    columns: columnsWith("What it is"),
  },
];

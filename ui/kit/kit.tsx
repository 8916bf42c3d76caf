"use client";

import { useRouter } from "next/navigation";
import { useState, type ComponentProps, type ReactNode } from "react";
import {
  WIDENED,
  type Board,
  type CheckedInstrument,
  type KitKind,
  type ZeroJudgement,
} from "@/core/kit";
import type { Stand } from "@/core/setout";
import { formatNumber, radToDeg } from "@/core/units";
import { ReasonDialog } from "../owed/reason-dialog";
import { Button } from "../primitives/button";
import { FileButton } from "../primitives/file-button";
import { Mark, type MarkState } from "../primitives/marks";
import { EditKit, type Editing } from "./edit-kit";
import { FeedToken } from "./feed-token";
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
  writes: boolean;
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
  writes,
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
  const take = async (text: string): Promise<void> => {
    const answer = await takeFile(text).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Nothing was changed; try again when it is back.",
    }));
    setMessage(answer.ok ? null : answer.message);
    if (answer.ok) router.refresh();
  };
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1 px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-center justify-between gap-4">
        <h1 className="text-4xl font-semibold">Kit</h1>
        <span className="ml-auto flex flex-wrap gap-1">
          <a
            href="/api/kit"
            download
            className="inline-flex min-h-14 items-center rounded-md px-3 font-semibold hover:bg-wash"
          >
            Export
          </a>
          {writes && <FileButton noun="kit" look="quiet" onText={(text) => void take(text)} />}
        </span>
        <a
          href="/api/kit/labels"
          target="_blank"
          rel="noreferrer"
          className="inline-flex min-h-14 items-center rounded-md border-2 border-ink bg-sheet px-5 text-lg font-semibold hover:bg-wash"
        >
          Print labels
        </a>
      </div>
      {message && (
        <p
          role="alert"
          className="mt-3 border-l-4 border-stop bg-sheet px-4 py-3 text-lg text-stop"
        >
          {message}
        </p>
      )}
      <Group
        title="Stands"
        onNew={writes ? () => setEditing({ kind: "stand", doc: NEW.stand, isNew: true }) : null}
        note="Each is checked every morning before its first job."
      >
        {stands.map((s) => (
          <Row
            key={s.id}
            mark={!s.check || !s.today ? "loose" : s.check.ok ? "settled" : "stop"}
            code={s.id}
            name={s.name}
            state={
              !s.check
                ? "never checked"
                : `${s.today ? "" : "not checked today; last: "}${s.check.words}`
            }
            detail={s.check ? `${dateAndTime(s.check.at)}, ${s.check.by}` : ""}
          >
            {writes && (
              <Edit onClick={() => setEditing({ kind: "stand", doc: s.doc, isNew: false })} />
            )}
            {writes && (
              <Button look={s.today ? "quiet" : "act"} onClick={() => setChecking(s)}>
                Zero check
              </Button>
            )}
          </Row>
        ))}
      </Group>
      <Group
        title="Instruments"
        onNew={
          writes ? () => setEditing({ kind: "instrument", doc: NEW.instrument, isNew: true }) : null
        }
        note={`An overdue one stays usable; its uncertainty then counts ${formatNumber(WIDENED, 1)} times.`}
      >
        {instruments.map((i) => (
          <Row
            key={i.id}
            mark={i.overdue ? "loose" : "settled"}
            code={i.id}
            name={i.name}
            state={i.overdue ? "check overdue" : `checked ${i.checkedOn}`}
            detail={
              i.sigmaRad > 0
                ? `± ${formatNumber(radToDeg(i.sigmaRad), 2)}°`
                : `± ${formatNumber(i.sigmaMm, 1)} mm${i.sigmaMmPerM > 0 ? ` + ${formatNumber(i.sigmaMmPerM, 2)} mm a metre` : ""}`
            }
          >
            {writes && (
              <Button look="quiet" onClick={() => setPosting(i)}>
                Posts
              </Button>
            )}
            {writes && (
              <Edit
                onClick={() =>
                  setEditing({ kind: "instrument", doc: instrumentDoc(i), isNew: false })
                }
              />
            )}
            {writes && (
              <Button look={i.overdue ? "plain" : "quiet"} onClick={() => setAsking(i)}>
                Checked today
              </Button>
            )}
          </Row>
        ))}
      </Group>
      <Group
        title="Boards and mats"
        onNew={writes ? () => setEditing({ kind: "board", doc: NEW.board, isNew: true }) : null}
        note="A worn board is used with care, one out of use not at all."
      >
        {boards.map((b) => (
          <Row
            key={b.code}
            mark={CONDITION[b.condition]}
            code={b.code}
            name={b.name}
            state={b.condition}
            detail={`version ${b.version}, ${formatNumber(b.widthMm)} mm${b.side === "either" ? "" : `, vehicle ${b.side} only`}`}
          >
            {writes && <Edit onClick={() => setEditing({ kind: "board", doc: b, isNew: false })} />}
          </Row>
        ))}
      </Group>
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
};

/** An instrument without what the page adds to it. */
const instrumentDoc = ({
  overdue: _,
  ...doc
}: CheckedInstrument & { overdue: boolean }): Record<string, unknown> => ({ live: "no", ...doc });

const Edit = ({ onClick }: { onClick: () => void }) => (
  <Button look="quiet" onClick={onClick}>
    Edit
  </Button>
);

const Group = ({
  title,
  note,
  onNew,
  children,
}: {
  title: string;
  note: string;
  onNew: (() => void) | null;
  children: ReactNode;
}) => (
  <section aria-label={title} className="mt-5">
    <div className="flex flex-wrap items-baseline gap-x-4 border-b-2 border-ink pb-1">
      <h2 className="text-2xl font-semibold">{title}</h2>
      <span className="flex-1 text-base text-soft">{note}</span>
      {onNew && (
        <Button look="quiet" aria-label={`New in ${title}`} onClick={onNew}>
          + New
        </Button>
      )}
    </div>
    <ul>{children}</ul>
  </section>
);

function Row({
  mark,
  code,
  name,
  state,
  detail,
  children,
}: {
  mark: MarkState;
  code: string;
  name: string;
  state: string;
  detail: string;
  children?: ReactNode;
}) {
  return (
    <li className="grid min-h-16 grid-cols-[auto_72px_1fr] items-center gap-x-3 border-b border-hairline px-2 py-1.5 md:grid-cols-[auto_72px_1.1fr_1.3fr_1fr_290px]">
      <Mark state={mark} size={16} />
      <span className="figure text-lg font-semibold">{code}</span>
      <span className="text-lg leading-tight">{name}</span>
      <span className="col-start-3 text-base md:col-start-auto">{state}</span>
      <span className="col-start-3 text-base text-soft md:col-start-auto">{detail}</span>
      <span className="col-start-3 flex flex-wrap gap-1 md:col-start-auto md:justify-end">
        {children}
      </span>
    </li>
  );
}

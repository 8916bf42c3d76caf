"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { EVENTS, KINDS, PLACES, SYSTEMS, type RuleBook, type SystemId } from "@/core/owed";
import type { DrivePolicy } from "@/core/drive/policy";
import type { DayRules } from "@/core/schedule/rules";
import type { ReleaseRule } from "@/core/job";
import type { GlassPolicy } from "@/core/ready";
import { Button } from "../primitives/button";
import { FileButton } from "../primitives/file-button";
import { EditEffort, EditOrder, type Effort, type Order } from "./edit-order";
import type { ShopClock } from "../settings";
import { ChoiceTile } from "./choice-tile";
import { DaySection } from "./day-section";
import { DriveSection } from "./drive-section";
import { ClockSection } from "./clock-section";
import { LetterheadSection, type Letterhead } from "./letterhead-section";
import { EditRule, type Rule } from "./edit-rule";
import { ReleaseSection } from "./release-section";

type Answer = Promise<{ ok: true } | { ok: false; message: string }>;
type Props = {
  policy: GlassPolicy;
  book: RuleBook;
  lead: boolean;
  /** Codes of the kit's boards and mats. */
  boards: string[];
  choosePolicy: (policy: string) => Answer;
  release: ReleaseRule;
  chooseRelease: (rule: ReleaseRule) => Answer;
  drives: DrivePolicy;
  chooseDrives: (policy: DrivePolicy) => Answer;
  days: DayRules;
  /** Who works. */
  people: { id: string; name: string }[];
  /** The zones there are, by name. */
  zones: string[];
  chooseClock: (clock: ShopClock) => Answer;
  letterhead: Letterhead | null;
  writeLetterhead: (letterhead: Letterhead) => Answer;
  writeBook: (book: unknown) => Answer;
  takeFile: (text: string) => Answer;
};

const POLICIES: { id: GlassPolicy; name: string; note: string }[] = [
  {
    id: "maker-only",
    name: "The maker’s glass only",
    note: "Any other part is refused at take-in.",
  },
  {
    id: "equivalent-with-reason",
    name: "An equivalent part, with its reason",
    note: "The reason and the part stand on the report.",
  },
];

/** What the shop is bound by: its glass, and what makes which calibration owed. */
export function SettingsPage({
  policy,
  book,
  lead,
  boards,
  choosePolicy,
  release,
  chooseRelease,
  drives,
  chooseDrives,
  days,
  people,
  zones,
  chooseClock,
  letterhead,
  writeLetterhead,
  writeBook,
  takeFile,
}: Props) {
  const router = useRouter();
  const [message, setMessage] = useState<string | null>(null);
  const [editing, setEditing] = useState<{ item: Partial<Rule>; at: number | null } | null>(null);
  const [order, setOrder] = useState<{ item: Partial<Order>; at: number | null } | null>(null);
  const [effort, setEffort] = useState<{ item: Partial<Effort>; at: number | null } | null>(null);
  const run = (answer: Answer): void => {
    setMessage(null);
    answer.then(
      (a) => (a.ok ? router.refresh() : setMessage(a.message)),
      () => setMessage("The shop does not answer. Nothing was changed; try again when it is back."),
    );
  };
  const put = async (
    list: "rules" | "orders" | "efforts",
    items: unknown[],
  ): Promise<string | null> => {
    const answer = await writeBook({ ...book, [list]: items }).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Try again when it is back.",
    }));
    if (!answer.ok) return answer.message;
    setEditing(null);
    setOrder(null);
    setEffort(null);
    router.refresh();
    return null;
  };
  /**
   * The list with one item kept at its place, or put at its end; without it when it is taken out.
   */
  const withItem = (items: readonly unknown[], at: number | null, item?: unknown): unknown[] =>
    at === null
      ? [...items, item]
      : items.flatMap((x, i) => (i !== at ? [x] : item === undefined ? [] : [item]));
  const systems = (Object.keys(SYSTEMS) as SystemId[]).filter((s) =>
    book.rules.some((r) => r.system === s),
  );
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1 px-3 py-4 lg:px-6">
      <h1 className="text-4xl font-semibold">Rules</h1>
      <p className="text-base text-soft">
        {lead
          ? "They hold for jobs opened from now on; an open job keeps what it was opened with."
          : "The lead may change these. They hold for jobs opened from then on."}
      </p>
      {message && (
        <p
          role="alert"
          className="mt-3 border-l-4 border-stop bg-sheet px-4 py-3 text-lg text-stop"
        >
          {message}
        </p>
      )}
      <section aria-label="Glass" className="mt-4">
        <h2 className="border-b-2 border-ink pb-1 text-2xl font-semibold">Glass</h2>
        <div className="mt-2 grid gap-2 md:grid-cols-2">
          {POLICIES.map((p) => (
            <ChoiceTile
              key={p.id}
              on={policy === p.id}
              name={p.name}
              note={p.note}
              disabled={!lead}
              onPress={() => run(choosePolicy(p.id))}
            />
          ))}
        </div>
      </section>
      <ReleaseSection kept={release} lead={lead} onChoose={(r) => run(chooseRelease(r))} />
      <DriveSection kept={drives} lead={lead} onChoose={(d) => run(chooseDrives(d))} />
      <DaySection kept={days} people={people} lead={lead} />
      <LetterheadSection kept={letterhead} lead={lead} onWrite={(l) => run(writeLetterhead(l))} />
      <ClockSection zones={zones} lead={lead} onChoose={(clock) => run(chooseClock(clock))} />
      <section aria-label="What is owed" className="mt-6">
        <div className="flex flex-wrap items-center gap-x-3 border-b-2 border-ink pb-1">
          <h2 className="mr-auto text-2xl font-semibold">What is owed, and why</h2>
          <a
            href="/api/rules"
            download
            className="inline-flex min-h-12 items-center rounded-md px-3 font-semibold hover:bg-wash"
          >
            Export
          </a>
          {lead && (
            <>
              <FileButton noun="rule book" look="quiet" onText={(text) => run(takeFile(text))} />
              <Button
                look="act"
                onClick={() =>
                  setEditing({
                    item: { when: [], near: false, kind: "static", cancelledBy: null },
                    at: null,
                  })
                }
              >
                New rule
              </Button>
            </>
          )}
        </div>
        {systems.map((system) => (
          <section key={system} aria-label={SYSTEMS[system]} className="mt-3">
            <h3 className="text-lg font-semibold">{SYSTEMS[system]}</h3>
            <ul>
              {book.rules.map((r, at) =>
                r.system !== system ? null : (
                  <li
                    key={r.id}
                    className="grid items-center gap-x-6 gap-y-0.5 border-b border-dashed border-hairline py-2 md:grid-cols-[1.2fr_1.6fr_110px_auto]"
                  >
                    <span className="text-base leading-snug">
                      {r.when.map((e) => EVENTS[e]).join("; ")}
                      {r.at && (
                        <span className="text-soft">{`, at ${r.at.map((p) => PLACES[p]).join(" or ")}`}</span>
                      )}
                    </span>
                    <span className="text-base leading-snug">
                      {r.reason}
                      <span className="block text-sm text-soft">
                        {r.source}
                        {r.cancelledBy && `. Cancelled by: ${r.cancelledBy}`}
                      </span>
                    </span>
                    <span className="text-base font-semibold">{KINDS[r.kind]}</span>
                    <span>
                      {lead && (
                        <Button
                          look="quiet"
                          aria-label={`Edit the rule ${r.id}`}
                          onClick={() => setEditing({ item: r, at })}
                        >
                          Edit
                        </Button>
                      )}
                    </span>
                  </li>
                ),
              )}
            </ul>
          </section>
        ))}
        {book.rules.length === 0 && (
          <p className="py-10 text-center text-xl text-soft">
            No rule yet: nothing is ever owed. Import a rule book, or write the first rule.
          </p>
        )}
      </section>
      <section aria-label="Order" className="mt-6">
        <Head
          title="Order"
          lead={lead}
          action="New order"
          onNew={() => setOrder({ item: { first: {}, then: {}, sameSystem: false }, at: null })}
        />
        <ul>
          {book.orders.map((o, at) => (
            <li
              key={o.id}
              className="flex flex-wrap items-center gap-x-6 border-b border-dashed border-hairline py-2 text-base"
            >
              <b className="min-w-72 font-semibold">
                {`${subject(o.first)} before ${subject(o.then)}`}
                {o.sameSystem ? " of the same system" : ""}
              </b>
              <span className="flex-1">{o.why}</span>
              {lead && (
                <Button
                  look="quiet"
                  aria-label={`Edit the order ${o.id}`}
                  onClick={() => setOrder({ item: o, at })}
                >
                  Edit
                </Button>
              )}
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="What each takes" className="mt-6">
        <Head
          title="What each takes"
          lead={lead}
          action="New effort"
          onNew={() =>
            setEffort({
              item: {
                kind: "static",
                bayMinutes: 30,
                roadMinutes: 0,
                boards: [],
                roomM: { ahead: 4, behind: 0.5, sides: 1 },
                needs: {},
                setUp: null,
              },
              at: null,
            })
          }
        />
        <ul>
          {book.efforts.map((x, at) => (
            <li
              key={`${x.system}/${x.kind}`}
              className="flex flex-wrap items-center gap-x-6 border-b border-dashed border-hairline py-2 text-base"
            >
              <b className="min-w-72 font-semibold">{`${SYSTEMS[x.system]}, ${x.kind}`}</b>
              <span className="flex-1">
                {[
                  x.bayMinutes > 0 ? `${x.bayMinutes} min in the bay` : null,
                  x.roadMinutes > 0 ? `${x.roadMinutes} min on the road` : null,
                  x.boards.length > 0 ? `boards ${x.boards.join(", ")}` : null,
                  room(x.roomM),
                ]
                  .filter(Boolean)
                  .join("; ")}
              </span>
              {lead && (
                <Button
                  look="quiet"
                  aria-label={`Edit the effort of ${SYSTEMS[x.system]}, ${x.kind}`}
                  onClick={() => setEffort({ item: x, at })}
                >
                  Edit
                </Button>
              )}
            </li>
          ))}
        </ul>
      </section>
      <EditRule
        editing={editing}
        onClose={() => setEditing(null)}
        onKeep={(rule) => put("rules", withItem(book.rules, editing!.at, rule))}
        onTakeOut={() => put("rules", withItem(book.rules, editing!.at))}
      />
      <EditOrder
        editing={order}
        onClose={() => setOrder(null)}
        onKeep={(o) => put("orders", withItem(book.orders, order!.at, o))}
        onTakeOut={() => put("orders", withItem(book.orders, order!.at))}
      />
      <EditEffort
        boards={boards}
        editing={effort}
        onClose={() => setEffort(null)}
        onKeep={(x) => put("efforts", withItem(book.efforts, effort!.at, x))}
        onTakeOut={() => put("efforts", withItem(book.efforts, effort!.at))}
      />
    </main>
  );
}

const room = (r: Effort["roomM"]): string | null => {
  const parts = [
    [r.ahead, "ahead"],
    [r.behind, "behind"],
    [r.sides, "each side"],
  ]
    .filter(([m]) => Number(m) > 0)
    .map(([m, where]) => `${m} m ${where}`);
  return parts.length > 0 ? `room ${parts.join(", ")}` : null;
};

const Head = ({
  title,
  action,
  lead,
  onNew,
}: {
  title: string;
  action: string;
  lead: boolean;
  onNew: () => void;
}) => (
  <div className="flex flex-wrap items-center border-b-2 border-ink pb-1">
    <h2 className="mr-auto text-2xl font-semibold">{title}</h2>
    {lead && <Button onClick={onNew}>{action}</Button>}
  </div>
);

const subject = (s: RuleBook["orders"][number]["first"]): string =>
  [s.system ? SYSTEMS[s.system] : null, s.kind ?? null].filter(Boolean).join(", ") || "everything";

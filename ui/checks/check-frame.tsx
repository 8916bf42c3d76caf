"use client";

import type { ReactNode } from "react";
import { checksOf, itemSettled, itemsOf, jobOwed, measuredOf, putRight, STAGES } from "@/core/job";
import { needConflicts } from "@/core/owed";
import { CHECK_PLACES, judgeMeasure, placeOfCheck } from "@/core/ready";
import type { CheckItem } from "@/core/sheet";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { Pictures } from "../photos/pictures";
import { Mark } from "../primitives/marks";
import { useTimes } from "../settings";

export const OUTCOMES = {
  fine: "Fine",
  fixed: "Fixed now",
  accepted: "Accepted",
  blocks: "Blocks",
} as const;
export type Outcome = keyof typeof OUTCOMES;
/** What an item that has a panel of its own is given: itself, and how to go to another or on. */
export type CheckPanel = {
  item: CheckItem;
  onArm: (itemId: string) => void;
  onNext: () => void;
};

const MARKS = { fine: "settled", fixed: "settled", accepted: "loose", blocks: "stop" } as const;

type Props = {
  stage: "ready" | "prove";
  currentId: string | null;
  onArm: (itemId: string) => void;
  /** The instrument of the current item, where it has one. */
  panel: ReactNode;
  /** It needs the whole width; the list stands under it. */
  wide?: boolean;
  next: ReactNode;
};

/** The list of what is to be checked, and beside it the instrument of the one that is armed. */
export function CheckFrame({ stage, currentId, onArm, panel, wide = false, next }: Props) {
  const { clockTime } = useTimes();
  const { ground, own: events } = useJob();
  const items = itemsOf(ground, stage);
  const done = checksOf(events, stage);
  // What was said before it came stands beside what asks for it until that is seen.
  const said = stage === "ready" ? ground.intake.booked?.said : undefined;
  const measured = measuredOf(events, stage);
  const current = items.find((i) => i.id === currentId);
  const { plan } = jobOwed(ground, events);
  const conflicts = stage === "ready" && plan ? needConflicts(plan) : [];
  // What is only looked at has nothing beside it, unless pictures hang there.
  const beside = panel !== null || current?.pictures !== undefined;
  return (
    <Stage title={STAGES.find((s) => s.id === stage)!.name} next={next}>
      {conflicts.map((c) => (
        <p
          key={c.need + c.first + c.then}
          className="mx-3 mt-3 border-l-4 border-dashed border-loose bg-sheet px-4 py-2 text-base lg:mx-4"
        >
          {c.words}
        </p>
      ))}
      {said && <SaidBefore said={said} items={items} by={ground.intake.customer} />}
      <div
        className={`m-3 grid items-start gap-4 lg:m-4 ${beside && !wide ? "lg:grid-cols-[330px_1fr]" : ""}`}
      >
        <ol className={`flex flex-col gap-1 ${panel ? `order-2 ${wide ? "" : "lg:order-1"}` : ""}`}>
          {items.map((item, i) => {
            const place = placeOfCheck(item);
            const starts = stage === "ready" && (i === 0 || placeOfCheck(items[i - 1]!) !== place);
            const answered = done.get(item.id);
            const e = answered && itemSettled(ground, events, stage, item) ? answered : undefined;
            const righted = !e && putRight(events, item.id) > 0;
            const here = currentId === item.id;
            const read = measured.get(item.id)?.body;
            const found =
              read && item.measure
                ? judgeMeasure(item.measure, read.values, ground.vehicle, read.found).headline
                : null;
            return (
              <li key={item.id}>
                {starts && (
                  <h2 className={`mb-1 text-sm font-semibold text-soft ${i > 0 ? "mt-2" : ""}`}>
                    {CHECK_PLACES[place]}
                  </h2>
                )}
                <button
                  type="button"
                  onClick={() => onArm(item.id)}
                  aria-current={here ? "step" : undefined}
                  className={`grid w-full grid-cols-[26px_1fr_auto] items-center gap-2 border-l-4 bg-sheet px-3 py-2.5 text-left ${here ? "border-act" : "border-transparent hover:border-hairline"}`}
                >
                  <span className="figure text-xl text-soft">{i + 1}</span>
                  <span className="min-w-0">
                    <span
                      className={`block leading-tight ${panel ? "text-base" : "text-xl"} ${here ? "font-semibold" : ""}`}
                    >
                      {item.ask}
                    </span>
                    {!e && said && saidOf(item) && said[saidOf(item)!] && (
                      <span className="block text-sm text-soft">
                        Said by {ground.intake.customer}: {said[saidOf(item)!]}
                      </span>
                    )}
                    {righted && (
                      <span className="block text-sm text-loose">Put right; read it again</span>
                    )}
                    {found && <span className="block text-sm text-soft">{found}</span>}
                    {e?.body.reason && (
                      <span className="block text-sm text-loose">{`${OUTCOMES[e.body.outcome]}: ${e.body.reason}`}</span>
                    )}
                    {e && (
                      <span className="block text-xs text-soft">
                        {OUTCOMES[e.body.outcome]} · {clockTime(e.at)} {e.by.initials}
                      </span>
                    )}
                  </span>
                  <Mark state={e ? MARKS[e.body.outcome] : "open"} size={16} />
                </button>
              </li>
            );
          })}
        </ol>
        {beside && (
          <section
            aria-label={current?.ask}
            className={`order-1 min-w-0 bg-sheet p-4 ${wide ? "" : "lg:order-2"}`}
          >
            <h2 className="mb-1 text-2xl font-semibold leading-tight">{current?.ask}</h2>
            <div className="mb-4">
              <p className="text-base text-soft">{current?.why}</p>
              <Pictures pictures={current?.pictures} />
            </div>
            {panel}
          </section>
        )}
      </div>
    </Stage>
  );
}

/** What was asked before a vehicle came that no item asks for again. */
const SAID: Record<string, string> = {
  trailer: "trailer",
  papers: "papers",
  room: "room about it",
  network: "mobile network",
  trim: "cover about the camera",
  fuel: "fuel",
  load: "load",
  printout: "alignment printout",
};

function SaidBefore({
  said,
  items,
  by,
}: {
  said: Readonly<Record<string, string>>;
  items: readonly CheckItem[];
  by: string;
}) {
  const asked = new Set(items.map(saidOf));
  const rest = Object.entries(said).filter(([id, text]) => text !== "" && !asked.has(id));
  if (rest.length === 0) return null;
  return (
    <p className="mx-3 mt-3 bg-sheet px-4 py-2 text-base text-soft lg:mx-4">
      Said by {by}, not seen yet:{" "}
      {rest.map(([id, text]) => `${SAID[id] ?? id}: ${text}`).join("; ")}.
    </p>
  );
}

/** The question before it came whose answer belongs to an item. */
function saidOf(item: CheckItem): string | null {
  if (item.measure?.kind === "fuel") return "fuel";
  if (item.measure?.kind === "alignment") return "printout";
  return item.looksFor === "load" ? "load" : null;
}

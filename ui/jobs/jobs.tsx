"use client";

import dynamic from "next/dynamic";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useDeferredValue, useState, type ComponentProps } from "react";
import type { JobState } from "@/core/job";
// From its own file: the list of jobs needs nothing of what judges them.
import { JOB_ORDERS, LIST, type JobOrder } from "@/core/job/list";
import { FindField } from "../lists/find-field";
import { ButtonLink } from "../primitives/button";
import { useKept } from "../primitives/use-kept";
import type { FirstSteps as Steps } from "../shop/first-steps";
import { Ticket } from "./ticket";
import { useJobs, useWaiting, type JobsPage } from "./use-jobs";

const FILTERS: { id: JobState | "all"; name: string }[] = [
  { id: "all", name: "All" },
  { id: "in-work", name: "In work" },
  { id: "refused", name: "Refused" },
  { id: "blocked", name: "Blocked" },
  { id: "ready-to-hand-over", name: "Ready to hand over" },
  { id: "handed-over", name: "Handed over" },
];

type Props = Pick<ComponentProps<typeof Steps>, "lead" | "takeStarter"> & {
  first: JobsPage;
  /** What a new shop still lacks; null once it has had a job. */
  steps: ComponentProps<typeof Steps>["steps"] | null;
  now: string;
  mayTakeIn: boolean;
};

const BY_WORK: { order: JobOrder } = { order: "work" };

const NOBODY: JobsPage["on"][string] = [];

// Only a new shop needs them.
const FirstSteps = dynamic(() => import("../shop/first-steps").then((m) => m.FirstSteps));

/** The start page: every job, what it lacks, who is on it. */
export function Jobs({ first, steps, lead, takeStarter, now, mayTakeIn }: Props) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [filter, setFilter] = useState<JobState | "all">("all");
  const [{ order }, arrange] = useKept<{ order: JobOrder }>("iridel.list.jobs", BY_WORK);
  const [most, setMost] = useState<number>(LIST.page);
  const { page, silent, settling } = useJobs(
    first,
    text,
    filter === "all" ? null : filter,
    order,
    most,
  );
  const waiting = useWaiting();

  const shown = page.tickets;
  // What was touched answers at once; the list follows as it is drawn.
  const drawn = useDeferredValue(shown);
  const countOf = (id: JobState | "all"): number =>
    id === "all" ? Object.values(page.counts).reduce((a, b) => a + b, 0) : (page.counts[id] ?? 0);
  const total = countOf(filter);
  const empty = countOf("all") === 0 && text.trim() === "" && shown.length === 0;

  /** The shop has had a job: there is something to look through. */
  const begun = !empty || steps === null;

  return (
    <main className="mx-auto flex w-full max-w-[1240px] flex-1 flex-col px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3">
        <h1 className="text-4xl font-semibold">Jobs</h1>
        <FindField
          label="Find a job"
          placeholder="Find by plate, name, VIN, vehicle, number"
          value={text}
          onChange={setText}
          onEnter={() => shown.length === 1 && router.push(`/jobs/${shown[0]!.id}`)}
        />
        {mayTakeIn && (
          <ButtonLink href="/take-in" look={begun ? "act" : "plain"} size="large">
            Take in a vehicle
          </ButtonLink>
        )}
      </div>
      <div
        role="group"
        aria-label="Show"
        className={`mt-4 flex flex-wrap gap-x-1 ${begun ? "" : "hidden"}`}
      >
        {FILTERS.map((f) => {
          return (
            <button
              key={f.id}
              type="button"
              aria-pressed={filter === f.id}
              onClick={() => {
                setFilter(f.id);
                setMost(LIST.page);
              }}
              className={`min-h-12 border-b-4 px-3 text-base ${filter === f.id ? "border-act font-semibold" : "border-transparent text-soft hover:text-ink"}`}
            >
              {f.name} <span className="figure">{countOf(f.id)}</span>
            </button>
          );
        })}
        <label className="ml-auto flex items-center">
          <span className="sr-only">Order of the list</span>
          <select
            value={order}
            onChange={(e) => arrange({ order: e.target.value as JobOrder })}
            className="min-h-12 rounded-md bg-transparent px-2 text-base text-soft hover:bg-wash"
          >
            {Object.entries(JOB_ORDERS).map(([id, name]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      </div>
      <ol className={begun ? "border-t-2 border-ink" : "hidden"}>
        {drawn.map((t) => (
          <Ticket
            key={t.id}
            ticket={t}
            on={page.on[t.id] ?? NOBODY}
            waiting={waiting.get(t.id) ?? 0}
            now={now}
          />
        ))}
      </ol>
      {silent && (
        <p className="py-2 text-base text-loose">
          The shop does not answer; this is how it was last.
        </p>
      )}
      {total > shown.length && most < LIST.most && (
        <button
          type="button"
          onClick={() => setMost((n) => n + LIST.page)}
          className="min-h-14 text-lg font-semibold text-act"
        >
          {`Show ${Math.min(LIST.page, total - shown.length)} more of ${total}`}
        </button>
      )}
      {total > shown.length && most >= LIST.most && (
        <p className="py-4 text-base text-soft">
          {`These are the newest ${shown.length}. Find an older one by plate, name, VIN or number.`}
        </p>
      )}
      {text.trim() !== "" && countOf("all") >= LIST.found && (
        <p className="py-2 text-base text-soft">
          {`More than ${LIST.found} jobs fit; the last taken in of them are looked at. Say more to find an older one.`}
        </p>
      )}
      {!begun && steps && <FirstSteps steps={steps} lead={lead} takeStarter={takeStarter} />}
      {shown.length === 0 && !settling && begun && (
        <p className="py-12 text-center text-xl text-soft">
          {empty ? (
            <>
              No job yet.{" "}
              {mayTakeIn && (
                <Link
                  href="/take-in"
                  className="font-semibold text-act underline underline-offset-4"
                >
                  Take in the first vehicle
                </Link>
              )}
            </>
          ) : (
            <>
              Nothing fits.{" "}
              <button
                type="button"
                className="min-h-12 font-semibold text-act underline underline-offset-4"
                onClick={() => {
                  setText("");
                  setFilter("all");
                }}
              >
                Show all jobs
              </button>
            </>
          )}
        </p>
      )}
    </main>
  );
}

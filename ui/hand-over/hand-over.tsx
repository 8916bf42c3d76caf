"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { PHOTO_SUBJECTS, standingHandOver, type PhotoSubject } from "@/core/job";
import type { CalibrationRecord, JobRecord } from "@/core/record";
import {
  arrivalLines,
  checkLine,
  halvesLine,
  witnessLine,
  buildRecord,
  readingFigures,
  standLines,
  resultLines,
  driveLine,
  runLine,
  codeLines,
  timeLines,
  verdictLine,
} from "@/core/record";
import { SYSTEMS } from "@/core/owed";
import { formatNumber } from "@/core/units";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { ReasonDialog } from "../owed/reason-dialog";
import { Photos } from "../photos/photos";
import { Button } from "../primitives/button";
import { Facts, Paper } from "../primitives/paper";
import { READER_NAMES } from "./report-page";
import { Share } from "./share";
import { ReleaseActs, useReleaseProblem } from "./release-bar";
import { TypedFigures } from "./typed-figures";
import { useTimes } from "../settings";

/** What the shop says of the log's chain. */
export type LogState =
  | { ok: true; lines: number; head: string; erased: number }
  | { ok: false; lines: number; seq: number; problem: string };
type Props = {
  /** The record as it was made at the hand-over; null while the job is open. */
  kept: JobRecord | null;
  log: LogState;
  erase: (jobId: string, reason: string) => Promise<{ ok: true } | { ok: false; message: string }>;
};

/** Whether the log is whole, and what that says and does not say. */
function LogLine({ log, archive }: { log: LogState; archive: string | null }) {
  return (
    <section className="mt-6">
      <h2 className="mb-1 text-xl font-semibold">Log</h2>
      {log.ok ? (
        <p className="text-lg [overflow-wrap:anywhere]">
          {log.lines} lines, unbroken. Head{" "}
          <span className="figure whitespace-normal break-all text-base">{log.head}</span>
          {log.erased > 0 && `. In ${log.erased} of them a personal part was erased on request`}.
        </p>
      ) : (
        <p role="alert" className="text-lg font-semibold text-stop">
          Broken at line {log.seq} of {log.lines}: {log.problem}
        </p>
      )}
      <p className="mt-1 text-base text-soft">
        Each line is sealed to the one before it. Whoever holds the database can write anew what
        follows the last head that left the house: compare it with the head on a report that was
        given away.
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-x-6 gap-y-2 text-lg">
        {archive && (
          <a href={archive} download className="font-semibold underline">
            Everything, ZIP
          </a>
        )}
        <Link href="/archives" className="underline">
          Check an archive
        </Link>
      </p>
    </section>
  );
}

/** One sheet carried out: why, what the vehicle said, and each target as it was set out. */
function CalibrationPart({ c, title }: { c: CalibrationRecord; title: string | null }) {
  const { clockTime } = useTimes();
  return (
    <>
      {title && (
        <h2 className="mb-3 mt-8 border-b-2 border-ink pb-1 text-2xl font-semibold">{title}</h2>
      )}
      <div className="grid gap-x-10 gap-y-5 xl:grid-cols-2">
        <section>
          <h2 className="mb-1 text-xl font-semibold">Why it was owed</h2>
          <p className="text-lg leading-snug">{c.reason}</p>
          <p className="mt-1 text-base text-soft">
            {c.sheet.title}
            {c.sheet.status === "checked" && `, version ${c.sheet.version}`}.
          </p>
        </section>
        <section>
          <h2 className="mb-1 text-xl font-semibold">What the vehicle said</h2>
          <p className="text-lg leading-snug">{runLine(c)}</p>
          {c.drives?.map((d) => (
            <p key={d.at} className="mt-1 text-lg leading-snug">
              {driveLine(d)}.
            </p>
          ))}
          <p className="mt-1 text-base text-soft">
            {c.run.tool
              ? `${c.run.tool.name}, serial ${c.run.tool.serial}, software ${c.run.tool.software}. Attempts: ${c.run.attempts}.`
              : "No scan tool was connected."}
          </p>
        </section>
      </div>
      {c.targets.map((t) => (
        <section key={t.id} className="mt-6">
          <h2 className="mb-1 text-xl font-semibold">
            Set out{c.targets.length > 1 ? `, ${t.name}` : ""}
          </h2>
          <p className="text-lg font-semibold">{verdictLine(t)}</p>
          {[checkLine(t, c.sheet, { clockTime }), halvesLine(t), witnessLine(t)].map(
            (line) =>
              line && (
                <p key={line} className="mt-1 text-base text-soft">
                  {line}
                </p>
              ),
          )}
          {t.settled && (
            <Table
              head={["Quantity", "Sheet", "Error", "Std. unc.", "Allowed"]}
              rows={resultLines(t, c.sheet).map((l) => [
                l.name,
                l.wanted,
                l.error,
                l.sigma,
                l.tolerance,
              ])}
            />
          )}
          {t.readings.length > 0 && (
            <Table
              head={["Reading", "Value", "Residual", "w", "Instrument", "When", "State"]}
              rows={standLines(t).map(({ reading: r, act }) => {
                if (!r) return `${act.say} ${clockTime(act.at)} ${act.by.initials}`;
                const { value, residual } = readingFigures(r);
                return [
                  r.name,
                  value,
                  residual,
                  r.w === null ? "–" : formatNumber(r.w, 1),
                  r.instrument.name,
                  `${clockTime(r.at)} ${r.by.initials}`,
                  { counts: "counts", doubt: "before a move", struck: "struck" }[r.state],
                ];
              })}
            />
          )}
        </section>
      ))}
    </>
  );
}

/** Hand over: the record as it stands, the same figures as on paper, and the papers themselves. */
export function HandOver({ kept, log, erase }: Props) {
  const { dateAndTime, zone } = useTimes();
  const { events, ground, head, write, me, pending } = useJob();
  const router = useRouter();
  const [asking, setAsking] = useState<"reopen" | "erase" | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const standing = standingHandOver(events);
  const built = useMemo(
    () => buildRecord(head.number, ground, events, head.simulated, { zone }),
    [events, ground, head, zone],
  );
  const record = standing && kept ? kept : built;
  // What the shop keeps of the hand-over is shown as soon as it is confirmed.
  const confirmed = standing !== null && pending.length === 0;
  useEffect(() => {
    if (confirmed && !kept) router.refresh();
  }, [confirmed, kept, router]);
  const open = record.open.length;
  const problem = useReleaseProblem();
  const codes = codeLines(record, { dateAndTime });
  const handed = standing && record.handedOver;
  const next = (
    <NextBar
      tone={handed ? "settled" : problem || open > 0 ? "loose" : "act"}
      say={
        handed
          ? `Handed over ${dateAndTime(handed.at)} by ${handed.by.name}.`
          : problem
            ? problem.say
            : open > 0
              ? `${open} thing${open > 1 ? "s" : ""} still open; the report says so.`
              : "Everything is settled. Hand it over."
      }
      detail={
        pending.length > 0
          ? "Something is still on its way to the shop: the papers lack it until it arrives."
          : !handed && (problem || open > 0)
            ? [...(problem ? [problem.remedy] : []), ...record.open].join(" · ")
            : undefined
      }
    >
      <a
        href={`/api/jobs/${head.id}/record`}
        className="inline-flex min-h-16 items-center rounded-md px-4 text-xl font-semibold hover:bg-wash"
        download
      >
        Record, JSON
      </a>
      <a
        href={`/api/jobs/${head.id}/report`}
        target="_blank"
        rel="noreferrer"
        className="inline-flex min-h-16 items-center rounded-md border-2 border-ink bg-sheet px-5 text-xl font-semibold hover:bg-wash"
      >
        Report, PDF
      </a>
      {me.role === "lead" && handed && (
        <Button look="quiet" size="large" onClick={() => setAsking("reopen")}>
          Open again
        </Button>
      )}
      {me.role !== "viewer" && !handed && <ReleaseActs />}
    </NextBar>
  );
  return (
    <Stage title="Hand over" next={next}>
      <Paper
        title={`Calibration record, job ${record.job.number}`}
        note={`${record.vehicle.make} ${record.vehicle.model}, ${record.vehicle.variant}`}
      >
        <p className="mb-4 flex flex-wrap items-center gap-x-6 gap-y-1 border-b border-hairline pb-2 text-lg print:hidden">
          <span className="text-soft">To read, to print, as PDF</span>
          {Object.entries(READER_NAMES).map(([reader, name]) => (
            <a
              key={reader}
              href={`/jobs/${head.id}/report/${reader}`}
              target="_blank"
              rel="noreferrer"
              className="inline-flex min-h-12 items-center font-semibold underline"
            >
              {name}
            </a>
          ))}
          {record.glass &&
            (record.glass.inside === false || record.glass.mount.some((m) => !m.right)) && (
              <a
                href={`/jobs/${head.id}/glass-letter`}
                target="_blank"
                rel="noreferrer"
                className="inline-flex min-h-12 items-center font-semibold underline"
              >
                Notice to the glass fitter
              </a>
            )}
        </p>
        {handed && <Share />}
        <TypedFigures handed={handed !== null} />
        <p className="mb-4 text-lg">
          <span className="text-soft">Done to the vehicle:</span> {record.owed.done.join(", ")}.
        </p>
        {record.calibrations.map((c, i) => (
          <CalibrationPart
            key={c.id}
            c={c}
            title={
              record.calibrations.length > 1
                ? `${i + 1} ${SYSTEMS[c.sheet.appliesTo.system]}`
                : null
            }
          />
        ))}
        {codes && (
          <section className="mt-6">
            <h2 className="mb-1 text-xl font-semibold">Fault codes before and after</h2>
            <p className="text-base text-soft">{codes.head}</p>
            {codes.rows.length > 0 && (
              <Table
                head={["Control unit", "What became of it", "What is said of it"]}
                rows={codes.rows}
              />
            )}
            {codes.quiet !== "" && (
              <p className="mt-1 text-base text-soft">Answering, nothing stored: {codes.quiet}.</p>
            )}
          </section>
        )}
        <section className="mt-6">
          <h2 className="mb-1 text-xl font-semibold">Vehicle and job</h2>
          <Facts
            facts={[
              ["VIN", record.vehicle.vin],
              ["Plate", record.vehicle.plate || "not given"],
              ["Customer", record.job.customer],
              ["Repair order", record.job.order || "not given"],
              ["Taken in", `${dateAndTime(record.job.takenInAt)} by ${record.job.takenInBy.name}`],
              ...(record.job.promisedAt
                ? ([["Promised for", dateAndTime(record.job.promisedAt)]] as [string, string][])
                : []),
              ...arrivalLines(record),
              ...(record.consent
                ? ([
                    [
                      "Consent to drive",
                      `${record.consent.name}, ${dateAndTime(record.consent.at)}`,
                    ],
                  ] as [string, string][])
                : []),
            ]}
          />
        </section>
        {record.photos.length > 0 && (
          <section className="mt-6">
            <h2 className="mb-2 text-xl font-semibold">Photos</h2>
            <Photos
              subjects={(Object.keys(PHOTO_SUBJECTS) as PhotoSubject[]).filter((s) =>
                record.photos.some((p) => p.shows === PHOTO_SUBJECTS[s]),
              )}
            />
          </section>
        )}
        <section className="mt-6">
          <h2 className="mb-1 text-xl font-semibold">Time</h2>
          {timeLines(record).map((t) => (
            <p key={t} className="text-lg">
              {t}
            </p>
          ))}
        </section>
        <LogLine log={log} archive={handed ? `/api/jobs/${head.id}/archive` : null} />
        {me.role === "lead" && (
          <Button look="quiet" className="mt-2" onClick={() => setAsking("erase")}>
            Erase the customer’s data
          </Button>
        )}
        {message && (
          <p role="alert" className="mt-2 text-lg text-stop">
            {message}
          </p>
        )}
        <p className="mt-6 text-sm text-soft">{record.notice}</p>
      </Paper>
      <ReasonDialog
        open={asking === "reopen"}
        title="Open the job again"
        note={`The record of version ${record.seal?.version ?? 1} stays as it was handed over; the next hand-over makes a new version.`}
        label="Why it is revised; this stays in the log"
        action="Open it again"
        onClose={() => setAsking(null)}
        onReason={(reason) => {
          write({ kind: "reopen", reason });
          setAsking(null);
        }}
      />
      <ReasonDialog
        open={asking === "erase"}
        title="Erase the customer’s data"
        note="Name, plate, complaint and signature go from the log, the record and the report, for good. What was measured and done stays. Photos and what somebody wrote in a reason are not searched."
        label="Who asked for it, and when"
        action="Erase it"
        onClose={() => setAsking(null)}
        onReason={(reason) => {
          setAsking(null);
          void erase(head.id, reason)
            .catch(() => ({
              ok: false as const,
              message: "The shop does not answer. Nothing was erased.",
            }))
            .then((a) => (a.ok ? window.location.reload() : setMessage(a.message)));
        }}
      />
    </Stage>
  );
}

const FIGURE_COLUMNS = new Set([
  "Value",
  "Residual",
  "w",
  "Sheet",
  "Error",
  "Std. unc.",
  "Allowed",
]);

function Table({ head, rows }: { head: string[]; rows: (string[] | string)[] }) {
  return (
    <div className="mt-3 overflow-x-auto" tabIndex={0} role="group" aria-label={head[0]}>
      <table className="w-full border-collapse text-base">
        <thead>
          <tr className="border-b-2 border-ink text-sm text-soft">
            {head.map((h) => (
              <th
                key={h}
                scope="col"
                className={`px-2 py-1 font-semibold ${FIGURE_COLUMNS.has(h) ? "text-right" : "text-left"}`}
              >
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) =>
            // A line of its own among the figures: what was done between them.
            typeof row === "string" ? (
              <tr key={i} className="border-b border-dashed border-hairline">
                <td colSpan={head.length} className="px-2 py-1.5 text-soft">
                  {row}
                </td>
              </tr>
            ) : (
              <tr
                key={i}
                className={`border-b border-dashed border-hairline ${row.at(-1) === "struck" ? "text-soft line-through" : ""}`}
              >
                {row.map((cell, k) => (
                  <td
                    key={k}
                    className={`px-2 py-1.5 ${FIGURE_COLUMNS.has(head[k]!) ? "figure text-right" : ""}`}
                  >
                    {cell}
                  </td>
                ))}
              </tr>
            ),
          )}
        </tbody>
      </table>
    </div>
  );
}

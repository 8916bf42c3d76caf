"use client";

import Link from "next/link";
import { useState, type ReactNode } from "react";
import {
  Bar,
  BarChart,
  CartesianGrid,
  ComposedChart,
  Legend,
  Area,
  Line,
  ResponsiveContainer,
  Scatter,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import { STAGES } from "@/core/job";
import { isOff, type Drift, type ShopNumbers } from "@/core/numbers";
import { SCHOOLS, type SchoolId } from "@/core/setout";
import { formatNumber } from "@/core/units";
import { Button } from "../primitives/button";
import { AXIS, TIP } from "../primitives/chart";
import { Mark } from "../primitives/marks";

const INKS = ["var(--act)", "var(--loose)", "var(--settled)", "var(--soft)", "var(--stop)"];

const WATCHED = {
  yaw: "yaw learned less foretold",
  scale: "height scale at its zero check",
  dot: "laser at its zero check",
  residual: "its readings beside the others",
} as const;

const schoolName = (id: string): string =>
  id in SCHOOLS ? SCHOOLS[id as SchoolId].name : "As the sheet led";

/** How the shop does. Every figure is worked out from what was handed over. */
export function Numbers({
  numbers,
  causes,
}: {
  numbers: Omit<ShopNumbers, "causes">;
  causes: readonly { name: string; count: number }[];
}) {
  const { months, minutes, declined, drifts, parts, calibrations } = numbers;
  const passed = months.reduce((s, m) => s + m.first, 0);
  const ran = months.reduce((s, m) => s + m.count, 0);
  const away = drifts.filter((d) => d.since !== null);
  const off = parts?.parts.filter(isOff) ?? [];
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1 px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <h1 className="text-4xl font-semibold">Numbers</h1>
        <p className="text-lg text-soft">
          of <b className="figure font-semibold text-ink">{formatNumber(calibrations)}</b>{" "}
          calibrations handed over in two years
        </p>
        <Link href="/records" className="ml-auto min-h-12 content-center text-lg underline">
          Their records
        </Link>
      </div>
      {calibrations === 0 && drifts.length === 0 ? (
        <p className="py-16 text-center text-xl text-soft">
          Nothing was handed over yet. The first job that is begins these numbers.
        </p>
      ) : (
        <>
          <section
            aria-label="What drifts"
            className="mt-3 border-l-8 border-hairline bg-sheet p-4"
          >
            <p className="flex items-center gap-3 text-2xl font-semibold">
              <Mark state={away.length + off.length > 0 ? "loose" : "settled"} size={20} />
              {away.length > 0
                ? driftWords(away)
                : off.length > 0
                  ? "Nothing drifts, but some jobs lie beside the others."
                  : "Nothing drifts."}
            </p>
            <p className="mt-1 text-base text-soft">
              Each stand’s jobs and zero checks are weighed together, the newest most, and so are
              the readings of each instrument. A mean outside its limits shows a slow change before
              any single check fails.
            </p>
          </section>
          <div className="mt-4 grid gap-4 lg:grid-cols-2">
            {away.map((d) => (
              <DriftChart key={`${d.id}/${d.what}`} drift={d} />
            ))}
            <Panel
              title="Passed at the first attempt"
              figure={ran > 0 ? `${formatNumber((100 * passed) / ran)} %` : "–"}
              note={`of ${formatNumber(ran)} that ran`}
            >
              <ResponsiveContainer width="100%" height={180}>
                <BarChart
                  data={months.map((m) => ({ ...m, share: (100 * m.first) / m.count }))}
                  margin={{ left: -4, right: 8, top: 6 }}
                >
                  <CartesianGrid stroke="var(--hairline)" vertical={false} />
                  <XAxis dataKey="month" {...AXIS} />
                  <YAxis domain={[0, 100]} unit=" %" {...AXIS} />
                  <Tooltip
                    {...TIP}
                    formatter={(v, _, p) => [
                      `${formatNumber(Number(v))} % of ${(p.payload as { count: number }).count}`,
                      "first attempt",
                    ]}
                  />
                  <Bar
                    dataKey="share"
                    fill="var(--settled)"
                    maxBarSize={64}
                    isAnimationActive={false}
                  />
                </BarChart>
              </ResponsiveContainer>
            </Panel>
            <Panel title="Minutes by stage" note="mean of a job, by its way of setting out">
              <Stages minutes={minutes} />
            </Panel>
            <Panel title="Causes of repeats" note="the likeliest of each refusal">
              <Counts list={causes} none="No vehicle refused." />
            </Panel>
            <Panel title="Declined" note="by the reason that was given">
              <Counts
                list={declined.map((d) => ({ name: d.reason, count: d.count }))}
                none="Nothing was declined."
              />
            </Panel>
            {drifts
              .filter((d) => d.since === null)
              .map((d) => (
                <InOrder key={`${d.id}/${d.what}`} drift={d} />
              ))}
          </div>
          {parts && <PartsTable parts={parts} />}
        </>
      )}
    </main>
  );
}

const listed = (ids: readonly string[]): string =>
  ids.length === 1 ? ids[0]! : `${ids.slice(0, -1).join(", ")} and ${ids.at(-1)!}`;

/** What drifts and what to do: a stand is zeroed, an instrument checked against something better. */
function driftWords(away: readonly Drift[]): string {
  const idsOf = (ofInstruments: boolean): string[] => [
    ...new Set(away.filter((d) => (d.what === "residual") === ofInstruments).map((d) => d.id)),
  ];
  const [stands, instruments] = [idsOf(false), idsOf(true)];
  return [
    stands.length === 1 ? `${stands[0]} drifts: zero it, and look at what bends.` : "",
    stands.length > 1 ? `${listed(stands)} drift: zero them, and look at what bends.` : "",
    instruments.length === 1 ? `${instruments[0]} reads beside the others: check it.` : "",
    instruments.length > 1 ? `${listed(instruments)} read beside the others: check them.` : "",
  ]
    .filter(Boolean)
    .join(" ");
}

function Panel({
  title,
  figure,
  note,
  children,
}: {
  title: string;
  figure?: string;
  note?: string;
  children: ReactNode;
}) {
  return (
    <section aria-label={title} className="bg-sheet p-4">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-3">
        <h2 className="text-xl font-semibold">{title}</h2>
        {figure && <b className="figure text-3xl font-semibold">{figure}</b>}
        {note && <span className="text-base text-soft">{note}</span>}
      </div>
      {children}
    </section>
  );
}

/** Bars of counts, drawn as lines of a list: a name may be long. */
function Counts({
  list,
  none,
}: {
  list: readonly { name: string; count: number }[];
  none: string;
}) {
  const most = Math.max(1, ...list.map((l) => l.count));
  if (list.length === 0) return <p className="text-lg text-soft">{none}</p>;
  return (
    <ul className="flex flex-col gap-1.5">
      {list.map((l) => (
        <li key={l.name} className="grid grid-cols-[3rem_1fr] items-center gap-3">
          <span className="figure text-right text-lg font-semibold">{l.count}</span>
          <span className="relative min-w-0">
            <span
              className="absolute inset-y-0 left-0 bg-wash"
              style={{ width: `${(100 * l.count) / most}%` }}
            />
            <span className="relative block px-2 text-base first-letter:uppercase">{l.name}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}

function Stages({ minutes }: { minutes: ShopNumbers["minutes"] }) {
  if (minutes.length === 0) return <p className="text-lg text-soft">No job was timed yet.</p>;
  const stages = STAGES.filter((s) => minutes.some((m) => (m.stages[s.id] ?? 0) >= 0.5));
  const data = minutes
    .slice(0, 5)
    .map((m) => ({ name: `${schoolName(m.school)} (${m.jobs})`, ...m.stages }));
  return (
    <ResponsiveContainer width="100%" height={Math.max(180, 44 * data.length + 110)}>
      <BarChart data={data} layout="vertical" margin={{ left: 40, right: 8 }}>
        <CartesianGrid stroke="var(--hairline)" horizontal={false} />
        <XAxis type="number" unit=" min" {...AXIS} />
        <YAxis type="category" dataKey="name" width={110} {...AXIS} />
        <Tooltip {...TIP} formatter={(v, name) => [`${formatNumber(Number(v), 1)} min`, name]} />
        <Legend wrapperStyle={{ fontSize: 14 }} />
        {stages.map((s, i) => (
          <Bar
            key={s.id}
            dataKey={s.id}
            name={s.name}
            stackId="one"
            fill={INKS[i % INKS.length]}
            fillOpacity={i < INKS.length ? 0.9 : 0.45}
            isAnimationActive={false}
          />
        ))}
      </BarChart>
    </ResponsiveContainer>
  );
}

/** What is said of a thing under watch, in one line. */
function driftNote({ unit, points, since, few }: Drift): string {
  if (few) return `${points.length} so far; limits from eight on`;
  const mean = `mean ${formatNumber(points.at(-1)!.mean, unit === "°" ? 2 : 1)} ${unit}`;
  return since ? `outside since ${since.slice(0, 10)}: ${mean}` : `in order: ${mean}`;
}

/** What is in order is one line; its chart is drawn when somebody asks for it. */
function InOrder({ drift }: { drift: Drift }) {
  const [open, setOpen] = useState(false);
  if (open) return <DriftChart drift={drift} />;
  const title = `${drift.id}: ${WATCHED[drift.what]}`;
  return (
    <section
      aria-label={title}
      className="flex flex-wrap items-center justify-between gap-x-4 bg-sheet px-4 py-2"
    >
      <span>
        <b className="block text-lg font-semibold">{title}</b>
        <span className="text-base text-soft">{driftNote(drift)}</span>
      </span>
      <Button look="quiet" aria-label={`Chart of ${title}`} onClick={() => setOpen(true)}>
        Chart
      </Button>
    </section>
  );
}

/** One thing under watch: its figures as pencil marks, their mean as a line, its limits as a band. */
function DriftChart({ drift }: { drift: Drift }) {
  const { id, what, unit, points, since, few } = drift;
  const data = points.map((p, n) => ({
    n,
    value: p.value,
    mean: few ? null : p.mean,
    band: few ? null : [p.lower, p.upper],
    day: p.at.slice(0, 10),
  }));
  const digits = unit === "°" ? 2 : 1;
  return (
    <Panel title={`${id}: ${WATCHED[what]}`} note={driftNote(drift)}>
      <ResponsiveContainer width="100%" height={150}>
        <ComposedChart data={data} margin={{ left: -14, right: 8 }}>
          <CartesianGrid stroke="var(--hairline)" vertical={false} />
          <XAxis dataKey="day" {...AXIS} minTickGap={40} />
          <YAxis {...AXIS} width={60} tickFormatter={(v: number) => formatNumber(v, digits)} />
          <Tooltip
            {...TIP}
            formatter={(v, name) => [
              Array.isArray(v)
                ? v.map((x) => formatNumber(Number(x), digits)).join(" to ")
                : `${formatNumber(Number(v), digits)} ${unit}`,
              name,
            ]}
          />
          <Area
            dataKey="band"
            name="limits"
            stroke="none"
            fill="var(--wash)"
            isAnimationActive={false}
          />
          <Scatter
            dataKey="value"
            name="figure"
            shape={<circle r={2.2} fill="var(--soft)" />}
            isAnimationActive={false}
          />
          <Line
            dataKey="mean"
            name="weighted mean"
            stroke={since ? "var(--stop)" : "var(--act)"}
            strokeWidth={2.5}
            dot={false}
            isAnimationActive={false}
          />
        </ComposedChart>
      </ResponsiveContainer>
    </Panel>
  );
}

/** What jobs of one model, one stand or one fitter have in common. */
function PartsTable({ parts }: { parts: NonNullable<ShopNumbers["parts"]> }) {
  const shown = parts.parts
    .filter((p) => p.jobs >= 3 && parts.parts.some((o) => o.factor === p.factor && o.id !== p.id))
    .toSorted((a, b) => Math.abs(b.off / b.sigma) - Math.abs(a.off / a.sigma))
    .slice(0, 12);
  return (
    <section aria-label="Means" className="mt-4 bg-sheet p-4">
      <h2 className="text-xl font-semibold">Who lies beside the others</h2>
      <p className="mt-1 text-base text-soft">
        Learned less foretold yaw, parted among model, stand and fitter; one job scatters by{" "}
        <span className="figure">{formatNumber(parts.chance, 2)}°</span>. Beyond three sigma it is
        no chance.
      </p>
      <table className="mt-2 w-full text-left text-base">
        <thead className="text-sm text-soft">
          <tr>
            <th className="py-1 font-normal">Part</th>
            <th className="font-normal">Which</th>
            <th className="text-right font-normal">Jobs</th>
            <th className="text-right font-normal">Off</th>
            <th className="pl-4 font-normal">What it says</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((p) => (
            <tr key={`${p.factor}/${p.id}`} className="border-t border-dashed border-hairline">
              <td className="py-2 first-letter:uppercase">{p.factor}</td>
              <td className="font-semibold">{p.id}</td>
              <td className="figure text-right">{p.jobs}</td>
              <td className="figure whitespace-nowrap text-right">
                {p.off >= 0 ? "+" : ""}
                {formatNumber(p.off, 2)} ± {formatNumber(p.sigma, 2)}°
              </td>
              <td className={`pl-4 ${isOff(p) ? "font-semibold text-loose" : "text-soft"}`}>
                {p.withOther
                  ? `goes with ${p.withOther.factor} ${p.withOther.id}: cannot be told apart`
                  : isOff(p)
                    ? "lies beside the others"
                    : "as the others"}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState, type ReactNode } from "react";
import { EVENTS } from "@/core/owed";
import { differences, DISTANCE_FROM_NAMES, type Sheet } from "@/core/sheet";
import { formatNumber } from "@/core/units";
import { DATUM_NAMES } from "@/core/vehicle";
import { Button } from "../primitives/button";
import { Facts, Paper } from "../primitives/paper";

type Props = {
  sheet: Sheet;
  previous: Sheet | null;
  versions: number[];
  writes: boolean;
  newVersion: (id: string) => Promise<{ ok: true; key: string } | { ok: false; message: string }>;
};

/** One sheet as it is used, its versions, and what changed from the one before. */
export function SheetPage({ sheet: s, previous, versions, writes, newVersion }: Props) {
  const router = useRouter();
  const [message, setMessage] = useState<string | null>(null);
  const changes = previous ? differences(previous, s).filter((d) => d.path !== "version") : [];
  const begin = async (): Promise<void> => {
    const answer = await newVersion(s.id).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Try again when it is back.",
    }));
    if (answer.ok) router.push(`/sheets/drafts/${answer.key}`);
    else setMessage(answer.message);
  };
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1">
      <Paper
        title={s.title}
        aside={
          <span className="flex flex-wrap items-center gap-2">
            {versions.map((v) => (
              <Link key={v} href={`/sheets/${s.id}?version=${v}`} aria-current={v === s.version ? "page" : undefined} className={`figure inline-flex min-h-12 min-w-12 items-center justify-center rounded-md border-2 px-2 font-semibold ${v === s.version ? "border-act" : "border-hairline"}`}>
                v{v}
              </Link>
            ))}
            <a href={`/api/sheets/${s.id}?version=${s.version}`} download className="inline-flex min-h-12 items-center rounded-md px-3 font-semibold hover:bg-wash">
              Export
            </a>
            {writes && (
              <Button look="act" onClick={() => void begin()}>
                New version
              </Button>
            )}
          </span>
        }
      >
        {message && (
          <p role="alert" className="mb-3 text-lg text-stop">
            {message}
          </p>
        )}
        <p className="mb-4 max-w-[70ch] text-xl leading-snug">{s.reason}</p>
        <div className="mb-4 grid grid-cols-2 gap-x-8 gap-y-3 border-y-2 border-ink py-3 lg:grid-cols-4">
          <Big name={`Ahead of ${DISTANCE_FROM_NAMES[s.distanceFrom]}`} value={`${formatNumber(s.placement.alongMm)} mm`} tolerance={`± ${formatNumber(s.tolerance.alongMm)}`} />
          <Big name={`Across the ${DATUM_NAMES[s.datum]}`} value={`${formatNumber(s.placement.acrossMm)} mm`} tolerance={`± ${formatNumber(s.tolerance.acrossMm)}`} />
          <Big name="Twist" value={`${formatNumber(s.placement.twistDeg, 2)}°`} tolerance={`± ${formatNumber(s.tolerance.twistDeg, 2)}°`} />
          <Big name="Centre above the floor" value={`${formatNumber(s.placement.heightMm)} mm`} tolerance={`± ${formatNumber(s.tolerance.heightMm)}`} />
        </div>
        {changes.length > 0 && (
          <section aria-label="What changed" className="mb-4 border-l-4 border-loose pl-4">
            <h2 className="text-xl font-semibold">What changed since version {previous!.version}</h2>
            <table className="w-full text-base">
              <tbody>
                {changes.map((d) => (
                  <tr key={d.path} className="border-b border-dashed border-hairline align-top">
                    <td className="figure whitespace-normal py-1 pr-4 text-sm">{d.path}</td>
                    <td className="pr-4 text-soft line-through [overflow-wrap:anywhere]">{d.before}</td>
                    <td className="[overflow-wrap:anywhere]">{d.after}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        )}
        <Facts
          facts={[
            ["Owed after", s.appliesTo.after.map((e) => EVENTS[e]).join(", ")],
            ["Board", `${s.board.code}, ${formatNumber(s.board.widthMm)} mm wide`],
            ["Cautions", <List key="c" items={s.cautions} />],
            ["Ready", <List key="r" items={s.ready.map((i) => i.ask)} />],
            ["Run", <List key="s" items={s.run.map((i) => i.say)} />],
            ["Prove", <List key="p" items={s.prove.map((i) => i.ask)} />],
            ["Source", `${s.source.name}, ${s.source.date}`],
            ["Entered by", s.source.enteredBy],
            ["Checked by", `${s.source.checkedBy} on ${s.source.checkedOn}`],
          ]}
        />
      </Paper>
    </main>
  ); // prettier-ignore
}

const Big = ({ name, value, tolerance }: { name: string; value: string; tolerance: string }) => (
  <div>
    <p className="text-sm text-soft">{name}</p>
    <p className="figure text-3xl font-semibold">{value}</p>
    <p className="figure text-base text-soft">{tolerance}</p>
  </div>
);

const List = ({ items }: { items: ReactNode[] }) => (
  <ol className="list-decimal pl-5">
    {items.map((x, i) => (
      <li key={i}>{x}</li>
    ))}
  </ol>
);

"use client";

import Link from "next/link";
import { useState } from "react";
import type { LogState } from "../hand-over/hand-over";
import { fits } from "@/core/book/fits";
import { FindField } from "../lists/find-field";
import { ListTable, type Column } from "../lists/list-table";
import { useTimes } from "../settings";

/** One line of the shop's own log, as the server gives it. */
export type ShopLine = {
  seq: number;
  at: string;
  by: string;
  event: ShopEvent;
  personal: string | null;
};
type ShopEvent =
  | { kind: "rules"; version: number; rules: number }
  | {
      kind: "policy";
      name: "glass" | "clock" | "letterhead" | "release" | "drives" | "tool-report";
      value: string;
    }
  | { kind: "person"; personId: string; what: string; role: string }
  | { kind: "pin"; personId: string; by: "lead" | "own" }
  | { kind: "kit"; item: string; what: string }
  | { kind: "book"; book: "sheet" | "vehicle"; id: string; version: number }
  | { kind: "feed"; instrumentId: string; what: string }
  | { kind: "erased"; jobId: string; reason: string }
  | { kind: "shared"; jobId: string; what: string }
  | { kind: "brought-in"; jobId: string; head: string }
  | { kind: "restored"; from: string };

const words = (e: ShopEvent, names: Record<string, string>, personal: string | null): string => {
  const who = (id: string): string => personal ?? names[id] ?? "somebody";
  switch (e.kind) {
    case "rules":
      return `Rule book, version ${e.version}: ${e.rules} rules`;
    case "policy":
      if (e.name === "letterhead") return `Letterhead: ${e.value}`;
      if (e.name === "tool-report") return `Reports of a tool, taught: ${e.value}`;
      if (e.name === "drives") return `Drives: ${e.value}`;
      if (e.name === "release") return `Release: ${e.value}`;
      if (e.name === "clock") return `Clock: the time of ${e.value}`;
      return `Glass: ${e.value === "maker-only" ? "the maker’s only" : "an equivalent part with a reason"}`;
    case "person":
      return `${who(e.personId)} ${e.what}, ${e.role}`;
    case "pin":
      return e.by === "own" ? "Own PIN changed" : `New PIN for ${who(e.personId)}`;
    case "kit":
      return `${e.item}: ${e.what}`;
    case "book":
      return `${e.book === "sheet" ? "Sheet" : "Vehicle"} ${e.id}, version ${e.version}, checked`;
    case "feed":
      return `${e.instrumentId}: ${e.what}`;
    case "erased":
      return `A customer’s data erased: ${e.reason}`;
    case "shared":
      return `Job ${e.jobId}: ${e.what}`;
    case "brought-in":
      return `Job ${e.jobId} brought in from an archive, head ${e.head.slice(0, 12)}`;
    case "restored":
      return `Shop restored from a copy: ${e.from}`;
  }
};

/**
 * What was changed of rules, people, PINs, kit and books, newest first, and whether the log is
 * whole.
 */
export function ShopLog({
  lines,
  chain,
  names,
}: {
  lines: ShopLine[];
  chain: LogState;
  names: Record<string, string>;
}) {
  const { dateAndTime } = useTimes();
  const [find, setFind] = useState("");
  const columns: Column<ShopLine>[] = [
    {
      id: "seq",
      name: "Line",
      track: "64px",
      leads: true,
      value: (l) => l.seq,
      cell: (l) => <span className="figure text-soft">{l.seq}</span>,
    },
    {
      id: "what",
      name: "What was changed",
      track: "1fr",
      leads: true,
      value: (l) => words(l.event, names, l.personal),
      cell: (l) => <span className="text-lg">{words(l.event, names, l.personal)}</span>,
    },
    {
      id: "by",
      name: "By",
      track: "180px",
      value: (l) => l.by,
      cell: (l) => <span className="text-soft">{l.by}</span>,
    },
    {
      id: "at",
      name: "When",
      track: "210px",
      value: (l) => l.at,
      cell: (l) => <span className="figure text-soft">{dateAndTime(l.at)}</span>,
    },
  ];
  const shown = lines.filter((l) =>
    fits([words(l.event, names, l.personal), l.by, dateAndTime(l.at)].join(" "), find),
  );
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1 px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3">
        <h1 className="text-4xl font-semibold">Shop log</h1>
        <FindField
          label="Find a line"
          placeholder="Find by what was changed, by whom, when"
          value={find}
          onChange={setFind}
        />
      </div>
      <p className={`text-base ${chain.ok ? "text-soft" : "font-semibold text-stop"}`}>
        {chain.ok
          ? `${chain.lines} ${chain.lines === 1 ? "line" : "lines"}, unbroken.`
          : `Broken at line ${chain.seq}: ${chain.problem}`}
        {lines.length < chain.lines && ` The newest ${lines.length} are shown.`}{" "}
        <Link href="/archives" className="font-normal underline">
          Check an archive
        </Link>
      </p>
      {lines.length === 0 && (
        <p className="py-12 text-center text-xl text-soft">
          Nothing was changed yet. Changes of rules, people, PINs, kit, sheets and vehicles stand
          here.
        </p>
      )}
      {shown.length > 0 && (
        <ListTable
          id="log"
          label="Shop log"
          columns={columns}
          rows={shown}
          keyOf={(l) => String(l.seq)}
        />
      )}
      {lines.length > 0 && shown.length === 0 && (
        <p className="py-12 text-center text-xl text-soft">No line fits these words.</p>
      )}
    </main>
  );
}

"use client";

import { SYSTEMS } from "@/core/owed";
import { isByHand } from "@/core/setout";
import { firstTarget, targetsOf, type Sheet } from "@/core/sheet";
import { dayInWords, formatNumber } from "@/core/units";
import { DATUM_NAMES } from "@/core/vehicle";
import { BookListPage, type BookList } from "../book/book-list";
import type { Column } from "../lists/list-table";

/** What is set out, by its codes. */
const objectsOf = (s: Sheet): string =>
  s.setups.length === 0
    ? "nothing"
    : isByHand(firstTarget(s))
      ? `mats ${targetsOf(s)
          .map((t) => t.object.code)
          .join(" and ")}`
      : `board ${firstTarget(s).object.code}`;

const aheadOf = (s: Sheet): number | undefined =>
  s.setups.length > 0 ? firstTarget(s).placement.alongMm : undefined;

const COLUMNS: Column<Sheet>[] = [
  {
    id: "title",
    name: "Sheet",
    track: "1.5fr",
    leads: true,
    value: (s) => s.title,
    cell: (s) => (
      <>
        <span className="block text-xl font-semibold leading-tight">{s.title}</span>
        <span className="text-base text-soft">
          {s.source.name}, {dayInWords(s.source.date)}
        </span>
      </>
    ),
  },
  {
    id: "system",
    name: "System",
    track: "0.8fr",
    wideOnly: true,
    value: (s) => SYSTEMS[s.appliesTo.system],
    cell: (s) => SYSTEMS[s.appliesTo.system],
  },
  {
    id: "ahead",
    name: "Where",
    track: "1fr",
    wideOnly: true,
    value: aheadOf,
    cell: (s) =>
      s.setups.length > 0 ? (
        <>
          <span className="figure font-semibold">{formatNumber(aheadOf(s)!)} mm</span> ahead, on the{" "}
          {DATUM_NAMES[firstTarget(s).datum]}
        </>
      ) : (
        <>{s.method === "dynamic" ? "Learned on the road" : "The vehicle itself"}</>
      ),
  },
  {
    id: "objects",
    name: "What is set out",
    track: "0.9fr",
    wideOnly: true,
    value: objectsOf,
    cell: (s) => (
      <span className="text-soft">
        {objectsOf(s)}, {s.run.length} steps
      </span>
    ),
  },
  {
    id: "checked",
    name: "Checked",
    track: "180px",
    end: true,
    value: (s) => s.source.checkedOn,
    cell: (s) => (
      <>
        <span className="figure text-lg font-semibold">v{s.version}</span>{" "}
        <span className="block text-sm text-soft">
          {s.source.checkedOn
            ? `by ${s.source.checkedBy}, ${dayInWords(s.source.checkedOn)}`
            : "not checked"}
        </span>
      </>
    ),
  },
];

/** The shop's book of procedure sheets. */
export function Sheets(page: BookList<Sheet>) {
  return (
    <BookListPage
      {...page}
      title="Sheets"
      noun="sheet"
      href="/sheets"
      placeholder="Find by title, vehicle, board, source"
      textOf={(s) => JSON.stringify([s.title, s.id, s.appliesTo, s.setups, s.source])}
      empty="No sheet yet. Import one, or enter it from the shop’s own service information."
      columns={COLUMNS}
    />
  );
}

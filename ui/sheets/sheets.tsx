"use client";

import Link from "next/link";
import { isByHand } from "@/core/setout";
import { firstTarget, targetsOf, type Sheet } from "@/core/sheet";
import { formatNumber } from "@/core/units";
import { DATUM_NAMES } from "@/core/vehicle";
import { BookListPage, type BookList } from "../book/book-list";

/** What is set out, by its codes. */
const objectsOf = (s: Sheet): string =>
  s.setups.length === 0
    ? "no board"
    : isByHand(firstTarget(s))
      ? `mats ${targetsOf(s)
          .map((t) => t.object.code)
          .join(" and ")}`
      : `board ${firstTarget(s).object.code}`;

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
    >
      {(s) => (
        <li key={s.id}>
          <Link
            href={`/sheets/${s.id}`}
            className="grid grid-cols-[1fr_auto] items-center gap-x-6 border-b border-hairline px-2 py-3 hover:bg-sheet lg:grid-cols-[1.4fr_1fr_1fr_auto]"
          >
            <span>
              <span className="block text-xl font-semibold leading-tight">{s.title}</span>
              <span className="text-base text-soft">
                {s.source.name}, {s.source.date}
              </span>
            </span>
            <span className="hidden text-base lg:block">
              {s.setups.length > 0 ? (
                <>
                  <span className="figure font-semibold">
                    {formatNumber(firstTarget(s).placement.alongMm)} mm
                  </span>{" "}
                  ahead, on the {DATUM_NAMES[firstTarget(s).datum]}
                </>
              ) : (
                "Learned on the road"
              )}
            </span>
            <span className="hidden text-base text-soft lg:block">
              {objectsOf(s)}, {s.run.length} steps
            </span>
            <span className="text-right">
              <span className="figure block text-lg font-semibold">v{s.version}</span>
              <span className="text-sm text-soft">checked by {s.source.checkedBy}</span>
            </span>
          </Link>
        </li>
      )}
    </BookListPage>
  );
}

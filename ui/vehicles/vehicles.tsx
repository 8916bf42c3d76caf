"use client";

import Link from "next/link";
import { SYSTEMS } from "@/core/owed";
import { formatNumber } from "@/core/units";
import type { Vehicle } from "@/core/vehicle";
import { BookListPage, type BookList } from "../book/book-list";
import { fitView, softPath, vehicleOutline } from "../floor/geometry";

/** The shop's measuring book: every kind of vehicle it has measured. */
export function Vehicles(page: BookList<Vehicle>) {
  const longest = Math.max(1, ...page.items.map((v) => v.lengthMm));
  return (
    <BookListPage
      {...page}
      title="Vehicles"
      noun="vehicle"
      href="/vehicles"
      placeholder="Find by make, model, VIN, system, glass part"
      textOf={(v) =>
        JSON.stringify([
          v.make,
          v.model,
          v.variant,
          v.vinStart,
          v.glass,
          v.source,
          v.fitted.map((f) => SYSTEMS[f.system]),
        ])
      }
      empty="No vehicle yet. Import one, or measure the first and enter it."
    >
      {(v) => (
        <li key={v.id}>
          <Link
            href={`/vehicles/${v.id}`}
            className="grid grid-cols-[110px_1fr_auto] items-center gap-x-5 border-b border-hairline px-2 py-3 hover:bg-sheet lg:grid-cols-[150px_1.2fr_1.6fr_auto]"
          >
            <Outline vehicle={v} longestMm={longest} />
            <span>
              <span className="block text-xl font-semibold leading-tight">
                {v.make} {v.model}
              </span>
              <span className="block text-base text-soft">
                {v.variant}, VIN {v.vinStart}…
              </span>
            </span>
            <span className="hidden text-base leading-snug lg:block">
              {v.fitted.map((f) => SYSTEMS[f.system]).join(", ")}
            </span>
            <span className="text-right">
              <span className="figure block text-lg font-semibold">
                {formatNumber(v.wheelbaseMm)} mm
              </span>
              <span className="text-sm text-soft">
                v{v.version ?? 1}
                {v.checked ? `, checked by ${v.checked.checkedBy}` : ""}
              </span>
            </span>
          </Link>
        </li>
      )}
    </BookListPage>
  );
}

function Outline({ vehicle: v, longestMm }: { vehicle: Vehicle; longestMm: number }) {
  const front = v.wheelbaseMm + v.frontOverhangMm;
  const view = fitView(
    { minX: front - v.lengthMm, maxX: front - v.lengthMm + longestMm, minY: -1300, maxY: 1300 },
    150,
    54,
    1,
    { u: 0, v: 0 },
  );
  return (
    <svg viewBox="-3 0 156 54" aria-hidden className="w-full">
      <path
        d={softPath(vehicleOutline(v).map(view.to))}
        className="fill-sheet stroke-ink"
        strokeWidth={1.5}
      />
    </svg>
  );
}

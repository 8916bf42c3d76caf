"use client";

import { SYSTEMS } from "@/core/owed";
import { dayInWords, formatNumber } from "@/core/units";
import type { Vehicle } from "@/core/vehicle";
import { BookListPage, type BookList } from "../book/book-list";
import type { Column } from "../lists/list-table";
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
      columns={columnsOf(longest)}
    />
  );
}

const columnsOf = (longestMm: number): Column<Vehicle>[] => [
  {
    id: "outline",
    name: "",
    track: "150px",
    cell: (v) => (
      <span className="block w-28 md:w-auto">
        <Outline vehicle={v} longestMm={longestMm} />
      </span>
    ),
  },
  {
    id: "name",
    name: "Vehicle",
    track: "1.2fr",
    leads: true,
    value: (v) => `${v.make} ${v.model} ${v.variant}`,
    cell: (v) => (
      <>
        <span className="block text-xl font-semibold leading-tight">
          {v.make} {v.model}
        </span>
        <span className="block text-base text-soft">
          {v.variant}, VIN {v.vinStart}…
        </span>
      </>
    ),
  },
  {
    id: "fitted",
    name: "Fitted",
    track: "1.5fr",
    wideOnly: true,
    value: (v) => v.fitted.length,
    cell: (v) => (
      <span className="leading-snug">{v.fitted.map((f) => SYSTEMS[f.system]).join(", ")}</span>
    ),
  },
  {
    id: "wheelbase",
    name: "Wheelbase",
    track: "120px",
    end: true,
    value: (v) => v.wheelbaseMm,
    cell: (v) => (
      <span className="figure text-lg font-semibold">{formatNumber(v.wheelbaseMm)} mm</span>
    ),
  },
  {
    id: "checked",
    name: "Checked",
    track: "180px",
    end: true,
    value: (v) => v.checked?.checkedOn,
    cell: (v) => (
      <span className="text-sm text-soft">
        v{v.version ?? 1}
        {v.checked ? ` by ${v.checked.checkedBy}, ${dayInWords(v.checked.checkedOn)}` : ""}
      </span>
    ),
  },
];

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

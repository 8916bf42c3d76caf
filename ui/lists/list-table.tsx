"use client";

import {
  columnVisibilityFeature,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type SortingState,
} from "@tanstack/react-table";
import Link from "next/link";
import { useMemo, type CSSProperties, type ReactNode } from "react";
import { useKept } from "../primitives/use-kept";
import { Arrange } from "./arrange";

/** One column of a list. */
export type Column<T> = {
  id: string;
  /** Its heading; a column without one cannot be put away or sorted by. */
  name: string;
  /** Its share of the width as a grid track, for instance "1fr" or "72px". */
  track: string;
  /** What the list is sorted by; undefined stands last. A column without one is not sorted by. */
  value?: (row: T) => string | number | undefined;
  cell: (row: T) => ReactNode;
  /** What names the row; it leads on where rows are links, and is always shown. */
  leads?: boolean;
  end?: boolean;
  /** Without a heading, and under the rest on a phone. */
  under?: boolean;
  /** Not shown on a phone. */
  wideOnly?: boolean;
};

type Props<T> = {
  /** Under which this tablet keeps how the list is arranged. */
  id: string;
  label: string;
  columns: Column<T>[];
  rows: T[];
  keyOf: (row: T) => string;
  href?: (row: T) => string;
};

type Kept = { sort: SortingState; hidden: string[] };
const AS_GIVEN: Kept = { sort: [], hidden: [] };

const words = new Intl.Collator("en", { numeric: true, sensitivity: "base" });
type Value = string | number;

const features = tableFeatures({
  rowSortingFeature,
  columnVisibilityFeature,
  sortedRowModel: createSortedRowModel(),
});

/**
 * A list with headings: sorted by a touch on one of them, its columns chosen in one menu. How it was
 * arranged last is kept on the tablet.
 */
export function ListTable<T extends object>({ id, label, columns, rows, keyOf, href }: Props<T>) {
  const [kept, keep, reset] = useKept<Kept>(`iridel.list.${id}`, AS_GIVEN);
  const known = new Set(columns.map((c) => c.id));
  const sorting = kept.sort.filter((s) => known.has(s.id));
  const defs = useMemo(
    () =>
      columns.map((c): ColumnDef<typeof features, T> => ({
        id: c.id,
        header: c.name,
        accessorFn: (row) => c.value?.(row),
        cell: ({ row }) => c.cell(row.original),
        enableSorting: c.value !== undefined,
        enableHiding: c.name !== "" && !c.leads,
        sortUndefined: "last",
        sortFn: (a, b, column) => {
          const [one, other] = [a.getValue<Value>(column), b.getValue<Value>(column)];
          return typeof one === "number" && typeof other === "number"
            ? one - other
            : words.compare(String(one), String(other));
        },
      })),
    [columns],
  );
  const table = useTable({
    features,
    columns: defs,
    data: rows,
    getRowId: keyOf,
    enableMultiSort: false,
    state: {
      sorting,
      columnVisibility: Object.fromEntries(kept.hidden.map((c) => [c, false])),
    },
    onSortingChange: (change) =>
      keep({ sort: typeof change === "function" ? change(sorting) : change }),
  });
  const shown = columns.filter((c) => !kept.hidden.includes(c.id));
  const tracks = {
    "--tracks": [...shown.map((c) => c.track), "48px"].join(" "),
  } as CSSProperties;
  const columnOf = new Map(columns.map((c) => [c.id, c]));
  const heads = table.getHeaderGroups()[0]?.headers ?? [];
  return (
    <table role="table" aria-label={label} className="mt-2 block" style={tracks}>
      <thead role="rowgroup" className="block">
        <tr role="row" className={`${LINE} border-b-2 border-ink`}>
          {heads.map((h) => {
            const column = columnOf.get(h.column.id)!;
            const way = h.column.getIsSorted();
            return (
              <th
                key={h.id}
                role="columnheader"
                scope="col"
                aria-sort={way === "asc" ? "ascending" : way === "desc" ? "descending" : undefined}
                className={`hidden font-normal md:block ${column.end ? "text-right" : "text-left"}`}
              >
                {h.column.getCanSort() && column.name !== "" ? (
                  <button
                    type="button"
                    onClick={h.column.getToggleSortingHandler()}
                    className={`-mx-1 min-h-12 rounded-md px-1 text-base hover:bg-wash ${way ? "font-semibold" : "text-soft"}`}
                  >
                    {column.name} <span aria-hidden>{way === "asc" ? "↑" : way ? "↓" : ""}</span>
                  </button>
                ) : (
                  <span className="text-base text-soft">{column.name}</span>
                )}
              </th>
            );
          })}
          <th role="columnheader" scope="col" className="col-start-2 text-right md:col-start-auto">
            <Arrange
              columns={columns}
              sort={sorting[0] ?? null}
              hidden={kept.hidden}
              onSort={(sort) => keep({ sort: sort ? [sort] : [] })}
              onHidden={(hidden) => keep({ hidden })}
              onReset={() => reset(AS_GIVEN)}
            />
          </th>
        </tr>
      </thead>
      <tbody role="rowgroup" className="block">
        {table.getRowModel().rows.map((row) => (
          <tr
            key={row.id}
            role="row"
            className={`${LINE} relative min-h-16 border-b border-hairline py-2 ${href ? "hover:bg-sheet" : ""}`}
          >
            {row.getVisibleCells().map((cell) => {
              const column = columnOf.get(cell.column.id)!;
              const content = column.cell(row.original);
              return (
                <td
                  key={cell.id}
                  role="cell"
                  className={`min-w-0 [overflow-wrap:anywhere] ${cellPlace(column)}`}
                >
                  {column.leads && href ? (
                    <Link href={href(row.original)} className="block after:absolute after:inset-0">
                      {content}
                    </Link>
                  ) : (
                    content
                  )}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const LINE = "grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-1 px-2 md:grid-cols-(--tracks)";

/** On a phone a column without a heading stands before the rest, which stand one under another. */
const cellPlace = <T,>(c: Column<T>): string =>
  [
    c.wideOnly
      ? "hidden md:block"
      : c.name === "" && !c.under
        ? ""
        : "col-start-2 md:col-start-auto",
    c.end ? "md:text-right" : "md:last:col-span-2",
  ].join(" ");

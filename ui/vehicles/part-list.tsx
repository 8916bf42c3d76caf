"use client";

import type { ReactNode } from "react";
import { Rows } from "../book/rows";
import { Button } from "../primitives/button";

/** Any part of a vehicle of which there may be several, or none: then the book has no such field. */
export function PartList<T extends { id?: string | undefined }>({
  label,
  about,
  name,
  most,
  value,
  readOnly,
  fresh,
  onChange,
  children,
}: {
  label: string;
  /** What they are for, over the list. */
  about: string;
  /** What one of them is called. */
  name: string;
  most: number;
  value: unknown;
  readOnly: boolean;
  /** A new one, with an id that none of those before it has. */
  fresh: (before: readonly T[]) => T;
  onChange: (parts: T[] | undefined) => void;
  /** The fields of one row. */
  children: (i: number) => ReactNode;
}) {
  const parts = (Array.isArray(value) ? value : []) as T[];
  const keep = (list: T[]): void => onChange(list.length > 0 ? list : undefined);
  return (
    <section aria-label={label} className="border-t-2 border-ink pt-3">
      <h2 className="mb-1 text-sm font-semibold text-soft">{about}</h2>
      <Rows
        items={parts}
        name={name}
        keyOf={(p, i) => p.id ?? i}
        problemAt={() => null}
        readOnly={readOnly}
        onChange={keep}
      >
        {(_, i) => (
          <span className="grid min-w-0 flex-1 grid-cols-2 gap-x-6 gap-y-2 lg:grid-cols-4">
            {children(i)}
          </span>
        )}
      </Rows>
      {!readOnly && parts.length < most && (
        <Button look="quiet" className="mt-1" onClick={() => keep([...parts, fresh(parts)])}>
          + {name.charAt(0).toUpperCase()}
          {name.slice(1)}
        </Button>
      )}
    </section>
  );
}

/** The first id of a row of numbered ones that is free: "m3". */
export function freeId(before: readonly { id?: string | undefined }[], letter: string): string {
  let n = before.length + 1;
  while (before.some((p) => p.id === `${letter}${n}`)) n++;
  return `${letter}${n}`;
}

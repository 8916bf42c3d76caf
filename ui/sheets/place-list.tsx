"use client";

import type { Draft, Problem } from "@/core/book";
import { RowNumber, Rows, RowText } from "../book/rows";
import { Button } from "../primitives/button";

type Place = {
  id: string;
  name?: string;
  placement?: Record<string, unknown>;
  board?: Record<string, unknown>;
  beside?: true;
};
type Props = {
  doc: Draft;
  problems: Problem[];
  readOnly: boolean;
  onChange: (path: string, value: unknown) => void;
};

const FIGURES = [
  ["alongMm", "ahead, mm"],
  ["acrossMm", "across, mm"],
  ["twistDeg", "twist, °"],
  ["heightMm", "height, mm"],
] as const;

/**
 * Places after the first: the board goes there, is set out and proved there, before the routine
 * goes on.
 */
export function PlaceList({ doc, problems, readOnly, onChange }: Props) {
  const places = (Array.isArray(doc.positions) ? doc.positions : []) as Place[];
  // A sheet with one place has no such field at all: that is how its format has it.
  const put = (list: Place[]): void => onChange("positions", list.length > 0 ? list : undefined);
  const add = (): void => {
    let n = places.length + 2;
    while (places.some((p) => p.id === `place-${n}`)) n++;
    put([...places, { id: `place-${n}`, name: "", placement: { ...(doc.placement as object) } }]);
  };
  return (
    <section aria-label="Further places">
      <h2 className="mb-1 text-sm font-semibold text-soft">Further places of the board</h2>
      <Rows
        items={places}
        name="place"
        from={2}
        keyOf={(p) => p.id}
        readOnly={readOnly}
        onChange={put}
        problemAt={(i) =>
          problems.find(
            (p) => p.field.startsWith(`positions.${i}.`) || p.field === `positions.${i}`,
          )?.message ?? null
        }
      >
        {(place, i) => {
          const patch = (change: Partial<Place>): void =>
            put(places.map((p, k) => (k === i ? { ...p, ...change } : p)));
          const { board, beside, ...alone } = place;
          /**
           * The board's fields are there all together, or the place takes the first one's board.
           */
          const hang = (change: Record<string, unknown>): void => {
            const next = Object.fromEntries(
              Object.entries({ ...board, ...change }).filter(
                ([, v]) => v !== undefined && v !== "",
              ),
            );
            const rest = { ...alone, ...(beside ? { beside } : {}) };
            put(
              places.map((p, k) =>
                k === i ? (Object.keys(next).length > 0 ? { ...rest, board: next } : rest) : p,
              ),
            );
          };
          const label = (what: string): string => `Place ${i + 2}: ${what}`;
          return (
            <span className="flex min-w-0 flex-1 flex-col gap-1">
              <RowText
                label={label("what it is called")}
                value={place.name ?? ""}
                readOnly={readOnly}
                onChange={(name) => patch({ name })}
                hint="what this place is called"
                className="font-semibold"
              />
              <span className="flex flex-wrap items-center gap-x-4 gap-y-1">
                {FIGURES.map(([field, name]) => (
                  <RowNumber
                    key={field}
                    label={label(name)}
                    name={name}
                    value={place.placement?.[field]}
                    readOnly={readOnly}
                    onChange={(v) => patch({ placement: { ...place.placement, [field]: v } })}
                  />
                ))}
              </span>
              <span className="flex flex-wrap items-center gap-x-4 gap-y-1">
                <label className="flex items-center gap-1 text-sm text-soft">
                  board, if another
                  <RowText
                    label={label("board code")}
                    value={String(board?.code ?? "")}
                    readOnly={readOnly}
                    onChange={(code) => hang({ code })}
                    className="!min-w-24 w-24 text-ink"
                  />
                </label>
                <RowNumber
                  label={label("board width, mm")}
                  name="its width, mm"
                  value={board?.widthMm}
                  readOnly={readOnly}
                  onChange={(widthMm) => hang({ widthMm })}
                />
                <label className="flex min-h-12 items-center gap-2 text-base">
                  <input
                    type="checkbox"
                    className="h-6 w-6 accent-act"
                    checked={beside === true}
                    disabled={readOnly}
                    onChange={(e) => {
                      const rest = { ...alone, ...(board ? { board } : {}) };
                      put(
                        places.map((p, k) =>
                          k === i ? (e.target.checked ? { ...rest, beside: true } : rest) : p,
                        ),
                      );
                    }}
                  />
                  the board before it stays; another stand carries this one
                </label>
              </span>
            </span>
          );
        }}
      </Rows>
      {!readOnly && (
        <Button look="quiet" className="mt-1 !px-3" onClick={add}>
          + Place
        </Button>
      )}
    </section>
  );
}

/** One plain line for each thing that can hurt somebody; shown at the moment it protects. */
export function CautionList({ doc, problems, readOnly, onChange }: Props) {
  const cautions = (Array.isArray(doc.cautions) ? doc.cautions : []) as string[];
  const put = (list: string[]): void => onChange("cautions", list);
  return (
    <section aria-label="Cautions">
      <h2 className="mb-1 text-sm font-semibold text-soft">Cautions</h2>
      <Rows
        items={cautions}
        name="caution"
        keyOf={(_, i) => i}
        readOnly={readOnly}
        onChange={put}
        problemAt={(i) => problems.find((p) => p.field === `cautions.${i}`)?.message ?? null}
      >
        {(text, i) => (
          <RowText
            label={`Caution ${i + 1}`}
            value={text}
            readOnly={readOnly}
            onChange={(t) => put(cautions.map((c, k) => (k === i ? t : c)))}
          />
        )}
      </Rows>
      {!readOnly && (
        <Button look="quiet" className="mt-1 !px-3" onClick={() => put([...cautions, ""])}>
          + Caution
        </Button>
      )}
    </section>
  );
}

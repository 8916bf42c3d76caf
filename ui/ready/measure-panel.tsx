"use client";

import { useRef } from "react";
import { formatQuantity } from "@/core/units";
import type { Vehicle } from "@/core/vehicle";
import { fitView, softPath, vehicleOutline } from "../floor/geometry";
import { Mark } from "../primitives/marks";
import type { Typed, useMeasure } from "./use-measure";

const UNIT_WORDS: Record<string, string> = {
  kPa: "kPa",
  mm: "mm",
  deg: "°",
  share: "tenths",
  V: "V",
  tyre: "",
};

type Props = { vehicle: Vehicle; state: ReturnType<typeof useMeasure>; readOnly: boolean };

/**
 * The numbers of one item where they are read: round the car for what has four corners, in a row
 * for the rest.
 */
export function MeasurePanel({ vehicle, state, readOnly }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const corners = state.typed.filter((t) => t.field.at);
  const others = state.typed.filter((t) => !t.field.at);
  const next = (id: string): void => {
    const inputs = [...(box.current?.querySelectorAll<HTMLInputElement>("input") ?? [])];
    inputs[inputs.findIndex((i) => i.name === id) + 1]?.focus();
  };
  const input = (t: Typed) => (
    <FieldInput
      key={t.field.id}
      typed={t}
      readOnly={readOnly}
      onChange={(text) => state.change({ [t.field.id]: text })}
      onLeave={() => state.spread(t.field.id)}
      onEnter={() => next(t.field.id)}
    />
  );
  return (
    <div ref={box} className="flex flex-col gap-3">
      {corners.length > 0 && (
        <div className="relative grid grid-cols-2 gap-x-3 gap-y-10 py-2 sm:gap-x-[240px]">
          <CarPlan vehicle={vehicle} />
          {["FL", "FR", "RL", "RR"].map((id) => input(corners.find((t) => t.field.id === id)!))}
        </div>
      )}
      {corners.length > 0 && corners[0]!.field.unit !== "tyre" && (
        <p className="mt-3 text-sm text-soft">
          Left and right may be typed in one, at the left, with a space between.
        </p>
      )}
      {others.length > 0 && <div className="grid gap-3 sm:grid-cols-2">{others.map(input)}</div>}
      {state.wrong && (
        <p role="alert" className="text-base text-stop">
          {state.wrong.problem}{" "}
          {state.wrong.meanings.map((text) => (
            <button
              key={text}
              type="button"
              className="mr-4 min-h-12 font-semibold text-act underline"
              onClick={() => state.change({ [state.wrong!.field.id]: text })}
            >
              Take it as {text}
            </button>
          ))}
        </p>
      )}
      {state.judged.lines.length > 0 && (
        <table className="w-full text-base">
          <tbody>
            {state.judged.lines.map((l) => (
              <tr key={l.name} className="border-b border-dashed border-hairline">
                <td className="py-1.5 pr-2">
                  <Mark state={l.ok ? "settled" : "loose"} size={12} />
                </td>
                <td className="w-full">{l.name}</td>
                <td
                  className={`figure px-3 text-right text-xl font-semibold max-sm:whitespace-normal ${l.ok ? "" : "text-loose"}`}
                >
                  {l.value}
                </td>
                <td className="figure text-right text-sm text-soft max-sm:whitespace-normal">
                  {l.wanted}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

function FieldInput({
  typed: t,
  readOnly,
  onChange,
  onLeave,
  onEnter,
}: {
  typed: Typed;
  readOnly: boolean;
  onChange: (text: string) => void;
  /** The field was typed to its end. */
  onLeave: () => void;
  onEnter: () => void;
}) {
  const { expected } = t.field.quantity;
  return (
    <label className="relative z-10 flex flex-col">
      <span className="flex justify-between text-sm font-semibold text-soft">
        {t.field.name}
        {expected !== undefined && (
          <span className="figure font-normal">
            {formatQuantity(expected, t.field.unit === "kPa" ? "kPa" : "mm")}
          </span>
        )}
      </span>
      <span
        className={`flex items-baseline border-b-4 bg-sheet px-2 ${t.problem ? "border-stop" : t.value !== null ? "border-settled" : "border-act"}`}
      >
        <input
          name={t.field.id}
          value={t.text}
          readOnly={readOnly}
          inputMode={t.field.unit === "tyre" ? "text" : "decimal"}
          autoComplete="off"
          placeholder={t.field.markings?.[0] ?? "–"}
          aria-invalid={t.problem !== null}
          onChange={(e) => onChange(e.target.value)}
          onBlur={onLeave}
          onKeyDown={(e) => e.key === "Enter" && onEnter()}
          className={`figure min-h-14 w-full min-w-0 bg-transparent font-semibold outline-none placeholder:text-chalk ${t.field.markings ? "text-xl" : "text-3xl"}`}
        />
        <span className="text-base text-soft">{UNIT_WORDS[t.field.unit]}</span>
      </span>
    </label>
  );
}

/** The car between its corners, nose up. */
function CarPlan({ vehicle: v }: { vehicle: Vehicle }) {
  const front = v.wheelbaseMm + v.frontOverhangMm;
  const view = fitView(
    { minX: front - v.lengthMm, maxX: front, minY: -v.widthMm / 2 - 60, maxY: v.widthMm / 2 + 60 },
    150,
    230,
    1,
    { u: 0, v: 0 },
  );
  const wheels = [v.wheelbaseMm, 0].flatMap((x) =>
    [1, -1].map((s) => view.to({ x, y: (s * v.trackFrontMm) / 2 })),
  );
  return (
    <svg
      viewBox="0 0 150 230"
      aria-hidden
      className="absolute left-1/2 top-1/2 hidden h-[115%] -translate-x-1/2 -translate-y-1/2 sm:block"
    >
      {wheels.map((p) => (
        <rect
          key={`${p.u}${p.v}`}
          x={p.u - 5}
          y={p.v - 14}
          width={10}
          height={28}
          rx={2}
          className="fill-chalk"
        />
      ))}
      <path
        d={softPath(vehicleOutline(v).map(view.to))}
        className="fill-sheet stroke-ink"
        strokeWidth={1.5}
        fillOpacity={0.9}
      />
    </svg>
  );
}

"use client";

import { lastOf, MOUNT_PARTS, type MountPart } from "@/core/job";
import { glassSeatOf, partProblem } from "@/core/ready";
import { formatNumber, parseQuantity, radToDeg } from "@/core/units";
import { GLASS_SPOTS, type GlassSpot } from "@/core/vehicle";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Field } from "../primitives/field";
import { Mark } from "../primitives/marks";
import { useKept } from "../primitives/use-kept";
import { Photos } from "../photos/photos";

type Draft = {
  part: string;
  fitter: string;
  reason: string;
  depths: Record<string, string>;
  mount: Partial<Record<MountPart, boolean>>;
};

const GRID: (GlassSpot | null)[] = [
  "top-left",
  "top",
  "top-right",
  "left",
  null,
  "right",
  "bottom-left",
  "bottom",
  "bottom-right",
];
const nameOf = (s: GlassSpot): string =>
  s.replace("-", " ").replace(/left|right/, (side) => `vehicle ${side}`);
const depthOf = (spot: GlassSpot, text: string) =>
  parseQuantity(
    text,
    { name: `the depth at the ${nameOf(spot)}`, dimension: "length", min: -25, max: 25 },
    "mm",
  );

/** Is it the right glass, and does it sit evenly: one proud corner turns the camera. */
export function GlassCheck() {
  const { ground, events, head, write, me } = useJob();
  const { vehicle, glassPolicy } = ground;
  const kept = lastOf(events, "glass");
  const [draft, change, letGo] = useKept<Draft>(`iridel:glass:${head.id}`, {
    part: kept?.body.part ?? "",
    fitter: kept?.body.fitter ?? "",
    reason: kept?.body.partReason ?? "",
    depths: Object.fromEntries(
      Object.entries(kept?.body.depths ?? {}).map(([s, v]) => [s, String(v)]),
    ),
    mount: kept?.body.mount ?? {},
  });

  const typed = GLASS_SPOTS.map((spot) => ({
    spot,
    text: draft.depths[spot] ?? "",
    parsed: depthOf(spot, draft.depths[spot] ?? ""),
  }));
  const depths = Object.fromEntries(
    typed.flatMap((t) => (t.text.trim() !== "" && t.parsed.ok ? [[t.spot, t.parsed.value]] : [])),
  );
  const wrong = typed.find((t) => t.text.trim() !== "" && !t.parsed.ok);
  const verdict = glassSeatOf(vehicle, depths);
  const part = partProblem(vehicle, glassPolicy, draft.part, draft.reason);
  const odd = verdict?.seat.odd ?? null;
  const readOnly = me.role === "viewer";
  const keep = (): void => {
    write({
      kind: "glass",
      part: draft.part.trim(),
      fitter: draft.fitter.trim(),
      partReason: draft.reason.trim() || null,
      depths,
      mount: draft.mount,
    });
    letGo();
  };

  return (
    <section aria-label="Glass and mount" className="mt-6 border-t-2 border-ink pt-4">
      <h2 className="text-2xl font-semibold">Glass and mount</h2>
      <p className="mb-3 text-base text-soft">
        One proud corner turns the camera. Read how far the glass stands proud (+) or deep (−) of
        the body at its corners and edges.
      </p>
      <div className="grid gap-x-10 gap-y-4 xl:grid-cols-[1fr_300px]">
        <div className="relative mx-auto grid w-full max-w-[620px] grid-cols-3 gap-x-2 gap-y-6 py-4">
          <svg
            viewBox="0 0 300 180"
            preserveAspectRatio="none"
            aria-hidden
            className="absolute inset-0 h-full w-full"
          >
            <path
              d="M38 14Q150 2 262 14Q284 16 290 40L298 150Q299 166 280 170Q150 178 20 170Q1 166 2 150L10 40Q16 16 38 14Z"
              fill="var(--wash)"
              stroke="var(--ink)"
              strokeWidth={1.5}
              vectorEffect="non-scaling-stroke"
            />
            <rect
              x={138}
              y={14}
              width={24}
              height={16}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={1.5}
              vectorEffect="non-scaling-stroke"
            />
          </svg>
          {GRID.map((spot, i) =>
            spot === null ? (
              <p key={i} className="relative flex flex-col items-center justify-center text-center">
                <span className="text-sm text-soft">Bracket turned</span>
                <span
                  className={`figure text-3xl font-semibold ${verdict && !verdict.inside ? "text-loose" : ""}`}
                >
                  {verdict ? `${formatNumber(Math.abs(verdict.worst.deg), 2)}°` : "–"}
                </span>
                <span className="text-sm text-soft">
                  {verdict
                    ? `${verdict.worst.name}, ± ${formatNumber(verdict.worst.sigmaDeg, 2)}°`
                    : "three spots at least"}
                </span>
              </p>
            ) : (
              <label key={spot} className="relative mx-auto flex w-full max-w-[130px] flex-col">
                <span className="text-center text-xs font-semibold text-soft">{nameOf(spot)}</span>
                <span
                  className={`flex items-baseline border-b-4 bg-sheet px-1 ${spot === odd ? "border-dashed border-loose" : depths[spot] === undefined ? "border-act" : "border-settled"}`}
                >
                  <input
                    aria-label={nameOf(spot)}
                    value={draft.depths[spot] ?? ""}
                    readOnly={readOnly}
                    inputMode="decimal"
                    autoComplete="off"
                    placeholder="–"
                    onChange={(e) =>
                      change({ depths: { ...draft.depths, [spot]: e.target.value } })
                    }
                    className="figure min-h-12 w-full min-w-0 bg-transparent text-center text-2xl font-semibold outline-none placeholder:text-chalk"
                  />
                  <span className="text-sm text-soft">mm</span>
                </span>
              </label>
            ),
          )}
        </div>
        <div>
          <Field
            label="Part number on the glass"
            value={draft.part}
            readOnly={readOnly}
            maxLength={60}
            hint={`The maker’s is ${vehicle.glass.makerPart}.`}
            problem={draft.part && part && !part.askReason ? part.message : null}
            onChange={(e) => change({ part: e.target.value.toUpperCase() })}
          />
          {part?.askReason || (draft.reason && !part) ? (
            <Field
              label="Why not the maker’s part"
              value={draft.reason}
              readOnly={readOnly}
              maxLength={400}
              problem={part?.message ?? null}
              onChange={(e) => change({ reason: e.target.value })}
            />
          ) : null}
          <Field
            label="Fitted by"
            value={draft.fitter}
            readOnly={readOnly}
            maxLength={80}
            onChange={(e) => change({ fitter: e.target.value })}
          />
          {verdict && (
            <dl className="mt-3 grid grid-cols-3 gap-2">
              {(["yaw", "pitch", "roll"] as const).map((axis) => {
                const deg = radToDeg(verdict.seat[`${axis}Rad`].value);
                const ok = Math.abs(deg) <= vehicle.glass.limitDeg;
                return (
                  <div key={axis}>
                    <dt className="flex items-center gap-1.5 text-sm text-soft">
                      <Mark state={ok ? "settled" : "loose"} size={10} /> {axis}
                    </dt>
                    <dd className={`figure text-xl font-semibold ${ok ? "" : "text-loose"}`}>
                      {formatNumber(deg, 2)}°
                    </dd>
                  </div>
                );
              })}
            </dl>
          )}
          <p className="mt-2 text-base" aria-live="polite">
            {wrong && !wrong.parsed.ok ? (
              <span className="text-stop">{wrong.parsed.problem}</span>
            ) : odd ? (
              <span className="text-loose">
                The {nameOf(odd)} does not fit the others: read it again, or press the glass home
                there.
              </span>
            ) : verdict && !verdict.inside ? (
              <span className="text-loose">
                The glass turns the camera by more than {formatNumber(vehicle.glass.limitDeg, 2)}°.
                Reseat it before the adhesive cures.
              </span>
            ) : verdict ? (
              <span className="text-settled">
                Seated evenly: within {formatNumber(vehicle.glass.limitDeg, 2)}° about every axis.
              </span>
            ) : null}
          </p>
          {!readOnly && (
            <Button
              look="act"
              size="large"
              className="mt-3 w-full"
              disabled={part !== null || wrong !== undefined}
              onClick={keep}
            >
              {kept ? "Print it again" : "Print to the slip"}
            </Button>
          )}
        </div>
      </div>
      <div className="mt-4 grid items-start gap-x-10 gap-y-4 xl:grid-cols-2">
        <ul>
          {(Object.keys(MOUNT_PARTS) as MountPart[]).map((part) => {
            const is = draft.mount[part];
            return (
              <li
                key={part}
                className="flex items-center gap-3 border-b border-dashed border-hairline py-1.5"
              >
                <Mark state={is === undefined ? "open" : is ? "settled" : "stop"} size={16} />
                <span
                  className={`min-w-0 flex-1 text-lg leading-tight ${is === false ? "font-semibold text-stop" : ""}`}
                >
                  {is === false
                    ? `${MOUNT_PARTS[part].bad}. Put it right first.`
                    : MOUNT_PARTS[part].ask}
                </span>
                {!readOnly &&
                  ([true, false] as const).map((answer) => (
                    <button
                      key={String(answer)}
                      type="button"
                      aria-pressed={is === answer}
                      aria-label={`${MOUNT_PARTS[part].ask}: ${answer ? "yes" : "no"}`}
                      onClick={() => change({ mount: { ...draft.mount, [part]: answer } })}
                      className={`min-h-12 min-w-14 rounded-md border-2 text-base ${is === answer ? "border-act bg-act font-semibold text-on-act" : "border-hairline hover:border-ink"}`}
                    >
                      {answer ? "Yes" : "No"}
                    </button>
                  ))}
              </li>
            );
          })}
        </ul>
        <Photos subjects={["glass", "bracket", "film"]} />
      </div>
    </section>
  );
}

"use client";

import { useQuery } from "@tanstack/react-query";
import type { Remote } from "comlink";
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { acrossId, alongId, bentId, SEAM_NAMES, type Field } from "@/core/ready";
import { surroundOf } from "@/core/job/surround-of";
import { camerasAt, seamPoint } from "@/core/surround/view";
import { CORNERS, SIDES, type CornerId, type SideId } from "@/core/surround/names";
import { formatNumber } from "@/core/units";
import type { PictureArea } from "@/devices/vehicle/cabin-picture";
import type { CabinView } from "@/devices/vehicle/cabin-view";
import type { SurroundWorker } from "@/workers/surround/surround.worker";
import { useJob } from "../bench/job-store";
import { Mark } from "../primitives/marks";
import type { useMeasure } from "../ready/use-measure";
import { CauseList } from "./cause-list";
import { useSurround } from "./use-surround";
import { shopQueries } from "../shop-queries";

type State = ReturnType<typeof useMeasure>;

/** Width of a floor line a step is told in, mm; the technician may say another. */
const LINE_MM = 50;
/** The closer look at a seam: a millimetre is half a pixel. */
const CLOSE = { mmPerPixel: 2, size: 300 };
const WHOLE_PX = 800;
/** Floor shown round the car, mm. */
const REACH_MM = 2600;

/** What the display of a simulated vehicle has; a real one shows its picture itself. */
function useCabinView(): CabinView | null {
  const { head, ground, own } = useJob();
  const query = useQuery(
    {
      queryKey: ["cabin", head.id, ground.calibrationId, own.at(-1)?.seq],
      queryFn: async (): Promise<CabinView> => {
        const asked = `/api/jobs/${head.id}/cabin?calibration=${encodeURIComponent(ground.calibrationId)}`;
        const response = await fetch(asked, { cache: "no-store" });
        if (!response.ok) throw new Error(`The shop answers ${response.status}.`);
        return (await response.json()) as CabinView;
      },
      enabled: head.simulated,
      retry: 1,
    },
    shopQueries(),
  );
  return query.data ?? null;
}

/** A part of the joined picture, drawn beside the page. */
function Picture({ view, part, label }: { view: CabinView; part: PictureArea; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pixels = useSurround(
    useCallback((s: Remote<SurroundWorker>) => s.picture(view, part), [view, part]),
  );
  useEffect(() => {
    if (!pixels || pixels.length !== 4 * part.width * part.height) return;
    const on = canvas.current?.getContext("2d");
    on?.putImageData(new ImageData(pixels, part.width, part.height), 0, 0);
  }, [pixels, part]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={label}
      width={part.width}
      height={part.height}
      className="block h-auto w-full bg-wash"
      data-drawn={pixels ? "" : undefined}
    />
  );
}

/**
 * The seams of the joined picture: where to look, what was seen, and what may be behind it. In a
 * simulated vehicle the display itself is here; at a real one the technician looks at it and says it
 * on the drawing.
 */
export function SeamsPanel({
  state,
  readOnly,
  onAct,
}: {
  state: State;
  readOnly: boolean;
  /** Hears what is to be done about the steps. */
  onAct: (words: string | null) => void;
}) {
  const { ground } = useJob();
  const [corner, setCorner] = useState<CornerId>("front-left");
  const [widths, setWidths] = useState(false);
  const view = useCabinView();
  const { car } = useMemo(() => surroundOf(ground.vehicle), [ground.vehicle]);
  const span = Math.max(car.frontMm - car.rearMm, car.leftMm - car.rightMm) + 2 * REACH_MM;
  const middle = useMemo(
    () => [(car.frontMm + car.rearMm) / 2, 0] as const,
    [car.frontMm, car.rearMm],
  );
  const whole = useMemo(
    (): PictureArea => ({
      middle,
      mmPerPixel: span / WHOLE_PX,
      width: WHOLE_PX,
      height: WHOLE_PX,
    }),
    [middle, span],
  );
  const close = useMemo(
    (): PictureArea => ({
      middle: seamPoint(car, corner),
      mmPerPixel: CLOSE.mmPerPixel,
      width: CLOSE.size,
      height: CLOSE.size,
    }),
    [car, corner],
  );
  const at = ([x, y]: readonly [number, number]): { left: string; top: string } => ({
    left: `${50 - (100 * y) / span}%`,
    top: `${50 - (100 * (x - middle[0])) / span}%`,
  });
  const value = (id: string): number | undefined => state.values[id];
  const stateOf = (c: CornerId): "settled" | "loose" | "open" => {
    const [a, b] = [value(alongId(c)), value(acrossId(c))];
    if (a === undefined || b === undefined) return "open";
    return state.judged.lines.some((l) => !l.ok && l.name.startsWith(SEAM_NAMES[c]))
      ? "loose"
      : "settled";
  };
  const { end, side } = camerasAt(corner);
  return (
    <div className="flex flex-col gap-5">
      <div className="grid items-start gap-5 lg:grid-cols-[340px_1fr]">
        <div>
          <div className="relative mx-auto aspect-square w-full max-w-[420px] overflow-hidden border border-hairline bg-wash">
            {view && <Picture view={view} part={whole} label="The joined picture" />}
            <Schematic car={car} span={span} middle={middle} bare={view !== null} />
            {CORNERS.map((c) => (
              <button
                key={c}
                type="button"
                aria-pressed={c === corner}
                aria-label={`Seam ${SEAM_NAMES[c]}`}
                onClick={() => setCorner(c)}
                style={at(seamPoint(car, c))}
                className={`absolute min-h-14 min-w-14 -translate-x-1/2 -translate-y-1/2 rounded-full border-4 ${c === corner ? "border-act" : "border-sheet/80 hover:border-act"}`}
              >
                <span className="absolute -right-2 -top-2 flex rounded-sm bg-sheet p-1">
                  <Mark state={stateOf(c)} size={14} />
                </span>
              </button>
            ))}
          </div>
          <p className="mt-2 text-sm text-soft">
            {view
              ? "The display of the simulated vehicle; ahead is up."
              : "Look at the display in the cabin; say here what it shows. Ahead is up."}
          </p>
        </div>
        <section aria-label={`Seam ${SEAM_NAMES[corner]}`} className="min-w-0">
          <h3 className="text-xl font-semibold first-letter:uppercase">
            {SEAM_NAMES[corner]}
            <span className="text-base font-normal text-soft">
              {" "}
              between the {end} and the {side} picture
            </span>
          </h3>
          <div className="mt-2 grid items-start gap-4 sm:grid-cols-[150px_1fr]">
            {view && (
              <div className="max-w-[220px] border border-hairline">
                <Picture
                  view={view}
                  part={close}
                  label={`The seam ${SEAM_NAMES[corner]}, close by`}
                />
              </div>
            )}
            <div className={`flex flex-col gap-3 ${view ? "" : "sm:col-span-2"}`}>
              <StepInput
                key={`${corner}across`}
                field={state.typed.find((t) => t.field.id === acrossId(corner))!.field}
                text={state.texts[acrossId(corner)] ?? ""}
                label="Lines along the car"
                what={`in the ${side} picture lie`}
                more={corner.endsWith("left") ? "out" : "in"}
                less={corner.endsWith("left") ? "in" : "out"}
                widths={widths}
                readOnly={readOnly}
                onChange={(text) => state.change({ [acrossId(corner)]: text })}
              />
              <StepInput
                key={`${corner}along`}
                field={state.typed.find((t) => t.field.id === alongId(corner))!.field}
                text={state.texts[alongId(corner)] ?? ""}
                label="Lines across the car"
                what={`in the ${side} picture lie`}
                more="forward"
                less="back"
                widths={widths}
                readOnly={readOnly}
                onChange={(text) => state.change({ [alongId(corner)]: text })}
              />
              {!readOnly && (
                <p className="flex flex-wrap items-center gap-x-4">
                  <button
                    type="button"
                    onClick={() => setWidths((w) => !w)}
                    className="min-h-12 text-base font-semibold text-act underline decoration-dotted underline-offset-4"
                  >
                    {widths ? "Say it in millimetres" : `Say it in widths of a ${LINE_MM} mm line`}
                  </button>
                  <button
                    type="button"
                    onClick={() =>
                      state.change(
                        Object.fromEntries(
                          CORNERS.flatMap((c) => [alongId(c), acrossId(c)])
                            .filter((id) => (state.texts[id] ?? "") === "")
                            .map((id) => [id, "0"]),
                        ),
                      )
                    }
                    className="min-h-12 text-base font-semibold text-act underline decoration-dotted underline-offset-4"
                  >
                    All that is left joins
                  </button>
                </p>
              )}
            </div>
          </div>
          <Bent state={state} readOnly={readOnly} />
        </section>
      </div>
      <CauseList values={state.values} show={state.judged.ok === false} onAct={onAct} />
    </div>
  );
}

/** The car and its four seams, over the picture or instead of it. */
function Schematic({
  car,
  span,
  middle,
  bare,
}: {
  car: { frontMm: number; rearMm: number; leftMm: number; rightMm: number };
  span: number;
  middle: readonly [number, number];
  bare: boolean;
}) {
  const u = (y: number): number => 50 - (100 * y) / span;
  const v = (x: number): number => 50 - (100 * (x - middle[0])) / span;
  const far = 34;
  return (
    <svg viewBox="0 0 100 100" aria-hidden className="absolute inset-0 h-full w-full">
      {CORNERS.map((c) => {
        const [x, y] = [
          c.startsWith("front") ? v(car.frontMm) : v(car.rearMm),
          c.endsWith("left") ? u(car.leftMm) : u(car.rightMm),
        ];
        const [dx, dy] = [c.endsWith("left") ? -far : far, c.startsWith("front") ? -far : far];
        return (
          <line
            key={c}
            x1={y}
            y1={x}
            x2={y + dx}
            y2={x + dy}
            stroke="currentColor"
            strokeWidth={0.4}
            strokeDasharray="1.6 1.2"
            className="text-act"
          />
        );
      })}
      {!bare && (
        <rect
          x={u(car.leftMm)}
          y={v(car.frontMm)}
          width={u(car.rightMm) - u(car.leftMm)}
          height={v(car.rearMm) - v(car.frontMm)}
          rx={2}
          className="fill-sheet stroke-ink"
          strokeWidth={0.6}
        />
      )}
      <path
        d={`M${50 - 2} ${v(car.frontMm) + 6} l2 -3 l2 3`}
        fill="none"
        className={bare ? "stroke-white" : "stroke-ink"}
        strokeWidth={0.7}
      />
    </svg>
  );
}

/** One step: which way it breaks, and by how much. */
function StepInput({
  field,
  text,
  label,
  what,
  more,
  less,
  widths,
  readOnly,
  onChange,
}: {
  field: Field;
  text: string;
  label: string;
  what: string;
  more: string;
  less: string;
  widths: boolean;
  readOnly: boolean;
  onChange: (text: string) => void;
}) {
  const typed = text.trim();
  const minus = typed.startsWith("-") || typed.startsWith("−");
  const zero = typed === "0";
  const size = typed.replace(/^[-−+]/, "");
  const [way, setWay] = useState<1 | -1>(minus ? -1 : 1);
  const sign = typed === "" || zero ? way : minus ? -1 : 1;
  const shown =
    widths && size !== "" && Number.isFinite(Number(size))
      ? formatNumber(Number(size) / LINE_MM, 2)
      : size;
  const put = (next: string, to: 1 | -1): void => {
    setWay(to);
    const plain = next.trim().replace(",", ".");
    if (plain === "") return onChange("");
    const mm = widths ? String(Math.round(Number(plain) * LINE_MM)) : plain;
    onChange(to < 0 && mm !== "0" ? `-${mm}` : mm);
  };
  const side = (to: 1 | -1, words: string): ReactNode => (
    <button
      type="button"
      disabled={readOnly}
      aria-pressed={!zero && typed !== "" && sign === to}
      onClick={() => (size === "" || zero ? setWay(to) : put(shown, to))}
      className={`min-h-14 rounded-md border-2 px-2.5 text-base ${!zero && sign === to ? "border-ink font-semibold" : "border-hairline text-soft hover:border-ink"}`}
    >
      {words}
    </button>
  );
  return (
    <fieldset className="border-l-4 border-hairline pl-3">
      <legend className="sr-only">{label}</legend>
      <p className="text-base">
        <b className="font-semibold">{label}</b> <span className="text-soft">{what}</span>
      </p>
      <div className="mt-1 flex flex-wrap items-stretch gap-2">
        <button
          type="button"
          disabled={readOnly}
          aria-pressed={zero}
          onClick={() => onChange("0")}
          className={`min-h-14 rounded-md border-2 px-2.5 text-base ${zero ? "border-settled font-semibold text-settled" : "border-hairline hover:border-ink"}`}
        >
          joined
        </button>
        {side(-1, less)}
        {side(1, more)}
        <label className="flex items-baseline border-b-4 border-act px-2">
          <span className="sr-only">
            {label}, {field.quantity.name}
          </span>
          <input
            value={zero ? "" : shown}
            readOnly={readOnly}
            inputMode="decimal"
            autoComplete="off"
            placeholder="by"
            onChange={(e) => put(e.target.value, sign)}
            className="figure min-h-12 w-12 bg-transparent text-2xl font-semibold outline-none placeholder:text-chalk"
          />
          <span className="text-base text-soft">{widths ? "widths" : "mm"}</span>
        </label>
      </div>
    </fieldset>
  );
}

/** In which of the four pictures straight lines are bent. */
function Bent({ state, readOnly }: { state: State; readOnly: boolean }) {
  const next = (s: SideId): void =>
    state.change({ [bentId(s)]: state.values[bentId(s)] === 1 ? "0" : "1" });
  return (
    <fieldset className="mt-4">
      <legend className="sr-only">Where straight lines are bent</legend>
      <div className="flex flex-wrap items-center gap-2">
        <span className="mr-1 text-base">
          <b className="font-semibold">Bent lines</b> <span className="text-soft">in</span>
        </span>
        {SIDES.map((s) => {
          const bent = state.values[bentId(s)] === 1;
          return (
            <button
              key={s}
              type="button"
              disabled={readOnly}
              aria-pressed={bent}
              onClick={() => next(s)}
              className={`min-h-12 rounded-md border-2 px-4 text-base ${bent ? "border-loose font-semibold text-loose" : "border-hairline hover:border-ink"}`}
            >
              {s}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}

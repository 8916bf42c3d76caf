import type { Quantity } from "@/core/setout";
import { formatLength, formatNumber, radToDeg } from "@/core/units";

/** One quantity as it is shown: how far off, how well known, and from where to where it may lie. */
export type Plumbed = Quantity & {
  name: string;
  /** Whether anything is known of it. */
  known: boolean;
  /** What positive and negative mean. */
  words: [string, string];
};

/** How much room a quantity has: what the verdict hangs on is large, what is safe is small. */
export type Room = "large" | "usual" | "small";

/** The allowed stretch of the floor is this wide, per cent of the picture's width. */
const ALLOWED = 46;
/** A bob is never drawn farther out than this, per cent. */
const EDGE = 4;
const held = (v: number): number => Math.min(100 - EDGE, Math.max(EDGE, v));

/** How many stand side by side: few have their limits beside their name, many are short of words. */
export type Crowd = "few" | "several" | "many";

const FIGURE_SIZES: Record<Crowd, Partial<Record<Room, string>>> = {
  few: {
    large: "text-2xl sm:text-[34px]",
    usual: "text-2xl sm:text-[28px]",
  },
  several: { usual: "text-2xl sm:text-[24px]", small: "text-lg sm:text-[19px]" },
  many: {
    large: "text-2xl sm:text-[28px]",
    usual: "text-lg sm:text-[18px]",
    small: "text-base sm:text-[15px]",
  },
};

/**
 * A quantity as a plumb line: the bob hangs beside the mark by its error, the line may swing as far
 * as the error is unsure, and the heavy stretch of floor is what the sheet allows. A solid bob is
 * known well enough to be believed, a hollow one is not.
 */
export function Plumb({
  q,
  lengths,
  room,
  crowd,
}: {
  q: Plumbed;
  lengths: "mm" | "in";
  room: Room;
  crowd: Crowd;
}) {
  const half = (q.upper - q.lower) / 2;
  const middle = (q.upper + q.lower) / 2;
  const angle = q.unit === "rad";
  const { error } = q;
  const known = q.known && q.sigma < 3 * half;
  const limit = (v: number): string =>
    angle
      ? `${formatNumber(radToDeg(v), 2)}°`
      : // its unit stands in the top bar
        formatLength(v, lengths).replace(/\u00a0(mm|in)$/, "");
  const figure = !known
    ? "?"
    : angle
      ? `${formatNumber(Math.abs(radToDeg(error)), 2)}°`
      : lengths === "in"
        ? formatLength(Math.abs(error), "in").replace(/\u00a0in$/, "")
        : formatNumber(Math.abs(error), Math.abs(error) < 9.95 ? 1 : 0);
  const allowed = middle === 0 ? `± ${limit(half)}` : `${limit(q.lower)} to ${limit(q.upper)}`;
  const off = Math.abs(error - middle);
  const outside = known && off > half;
  const sure = known && (outside ? off - 2 * q.sigma > half : off + 2 * q.sigma < half);
  const tone = !known ? "var(--soft)" : outside ? "var(--loose)" : "var(--ink)";
  const side = known && /[1-9]/.test(figure) ? q.words[error > 0 ? 0 : 1] : "";
  return (
    <div className="min-w-0" role="group" aria-label={q.name}>
      <p
        className={`flex justify-between gap-2 text-soft ${crowd === "many" ? "h-7 items-end text-xs leading-[1.1]" : "items-baseline text-sm leading-tight"}`}
      >
        <span className={crowd === "many" ? "line-clamp-2 min-w-0 break-words" : "truncate"}>
          {q.name}
        </span>
        {crowd === "few" && <span className="figure hidden sm:inline">{allowed}</span>}
      </p>
      <p
        className="flex h-7 items-end gap-1 overflow-hidden whitespace-nowrap sm:h-10"
        style={{ color: tone }}
      >
        <span
          className={`figure font-semibold leading-none ${FIGURE_SIZES[crowd][room] ?? FIGURE_SIZES.few[room]}`}
        >
          {figure}
        </span>
        <span
          className={`min-w-0 truncate text-soft ${room === "small" || (crowd === "many" && room !== "large") ? "sr-only" : "text-sm leading-tight"}`}
        >
          {side}
        </span>
      </p>
      <Picture
        at={known ? held(50 + ((error - middle) / half) * (ALLOWED / 2)) : null}
        swing={
          known
            ? [-1.96, 1.96].map((z) =>
                held(50 + ((error + z * q.sigma - middle) / half) * (ALLOWED / 2)),
              )
            : [EDGE, 100 - EDGE]
        }
        tone={tone}
        sure={sure}
      />
    </div>
  );
}

/** Where the line hangs and the floor with its allowed stretch, in a box as wide as there is room. */
function Picture({
  at,
  swing,
  tone,
  sure,
}: {
  at: number | null;
  swing: number[];
  tone: string;
  sure: boolean;
}) {
  const [left, right] = [50 - ALLOWED / 2, 50 + ALLOWED / 2];
  return (
    <div className="relative mt-1 h-7 w-full sm:h-8" aria-hidden>
      <svg
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        className="absolute inset-0 h-full w-full"
      >
        <path
          d={`M50 0L${swing[0]} 92H${swing[1]}Z`}
          fill={at === null ? "none" : tone}
          fillOpacity={0.2}
          stroke={at === null ? "var(--chalk)" : "none"}
          strokeDasharray="3 3"
          vectorEffect="non-scaling-stroke"
        />
        {at !== null && (
          <path
            d={`M50 0L${at} 62`}
            stroke={tone}
            strokeWidth={1.5}
            vectorEffect="non-scaling-stroke"
          />
        )}
        <path
          d="M0 96H100"
          stroke="var(--hairline)"
          strokeWidth={1.5}
          vectorEffect="non-scaling-stroke"
        />
        <path
          d={`M${left} 96H${right}`}
          stroke="var(--settled)"
          strokeWidth={4}
          vectorEffect="non-scaling-stroke"
        />
        <path
          d={`M${left} 74V98M${right} 74V98`}
          stroke="var(--settled)"
          strokeWidth={2}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      {at !== null && (
        <svg
          viewBox="0 0 12 18"
          className="absolute bottom-0.5 h-[62%] w-3 -translate-x-1/2"
          style={{ left: `${at}%` }}
        >
          <path
            d="M4 1H8L11 6L6 17L1 6Z"
            fill={sure ? tone : "var(--paper)"}
            stroke={tone}
            strokeWidth={2}
            strokeLinejoin="round"
          />
        </svg>
      )}
    </div>
  );
}

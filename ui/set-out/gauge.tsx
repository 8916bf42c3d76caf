import type { Quantity } from "@/core/setout";
import { formatLength, formatNumber, radToDeg } from "@/core/units";

/** One quantity as it is shown: how far off, how well known, and from where to where it may lie. */
export type Gauged = Quantity & {
  name: string;
  /** Whether anything is known of it. */
  known: boolean;
  /** What positive and negative mean. */
  words: [string, string];
};

const within = (v: number): number => Math.min(98, Math.max(2, v));

/** The figure large, and a rule on which the allowed band, the error and its 95 % spread lie. */
export function Gauge({
  g,
  lengths,
  crowded,
}: {
  g: Gauged;
  lengths: "mm" | "in";
  crowded: boolean;
}) {
  const half = (g.upper - g.lower) / 2;
  const middle = (g.upper + g.lower) / 2;
  const angle = g.unit === "rad";
  const { error } = g;
  const known = g.known && g.sigma < 3 * half;
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
        ? formatLength(Math.abs(error), "in")
        : formatNumber(Math.abs(error), Math.abs(error) < 9.95 ? 1 : 0);
  const allowed = middle === 0 ? `± ${limit(half)}` : `${limit(g.lower)} to ${limit(g.upper)}`;
  const outside = known && Math.abs(error - middle) > half;
  // The rule runs over two and a half tolerances each side.
  const at = (v: number): number => within(50 + (20 * (v - middle)) / half);
  const [from, to] = [at(error - 1.96 * g.sigma), at(error + 1.96 * g.sigma)];
  const tone = !known ? "var(--chalk)" : outside ? "var(--loose)" : "var(--ink)";
  return (
    <div className="min-w-0 flex-1" role="group" aria-label={g.name}>
      <p className="flex items-baseline justify-between gap-2 text-sm text-soft">
        <span className="truncate">{g.name}</span>
        <span className="figure hidden sm:inline">{allowed}</span>
      </p>
      <p
        className="flex items-baseline gap-1 overflow-hidden whitespace-nowrap"
        style={{ color: tone }}
      >
        <span
          className={`figure text-2xl font-semibold leading-tight ${crowded ? "sm:text-[24px]" : "sm:text-[32px]"}`}
        >
          {figure}
        </span>
        <span
          className={`text-soft ${crowded ? "self-center whitespace-normal text-xs leading-none" : "truncate text-sm leading-tight"}`}
        >
          {known && /[1-9]/.test(figure) ? g.words[error > 0 ? 0 : 1] : ""}
        </span>
      </p>
      <svg viewBox="0 0 100 12" preserveAspectRatio="none" className="h-3 w-full" aria-hidden>
        <path
          d="M0 6H100"
          stroke="var(--hairline)"
          strokeWidth={1}
          vectorEffect="non-scaling-stroke"
        />
        <rect x={30} y={1} width={40} height={10} fill="var(--settled)" opacity={0.16} />
        <path d="M30 0V12M70 0V12" stroke="var(--settled)" strokeWidth={0.7} />
        <path d="M50 3V9" stroke="var(--chalk)" strokeWidth={0.5} />
        {known && (
          <>
            <rect
              x={from}
              y={4.2}
              width={Math.max(0.8, to - from)}
              height={3.6}
              fill={tone}
              opacity={0.4}
            />
            <rect x={at(error) - 0.6} y={0} width={1.2} height={12} fill={tone} />
          </>
        )}
      </svg>
    </div>
  );
}

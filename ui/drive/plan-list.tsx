import dynamic from "next/dynamic";
import { useState, type ReactNode } from "react";
import type { DrivePlan } from "@/core/drive/plan";
import { whyWords } from "@/core/drive/why";
import { formatNumber } from "@/core/units";
import { Button } from "../primitives/button";
import { Paper } from "../primitives/paper";
import { useTimes } from "../settings";
import { TurnSheet } from "./turn-sheet";
import type { Hour, Plans } from "./use-plans";

const DayChart = dynamic(() => import("./day-chart").then((m) => m.DayChart), {
  ssr: false,
  loading: () => <div className="h-[200px]" />,
});

const minutes = (s: number): string => `${Math.round(s / 60)} min`;

/** Which drive is looked at: of which hour, and which of its drives. */
export type Choice = { departMs: number; nth: number };

const NONE: Record<NonNullable<Hour["why"]>, string> = {
  dark: "It is dark then: the camera learns by day.",
  wet: "Too wet: not enough would count within two hours.",
  spent:
    "So many ways were looked at that nothing could be told. Take out roads far from the shop.",
  "no-road": "No road within reach gathers enough within two hours. Look at the lines on Roads.",
};

/** What is said where no drive can be shown; null where one can. */
function lacking(plans: Plans): string | null {
  switch (plans.kind) {
    case "looking":
      return "Looking for the soonest drive.";
    case "no-roads":
      return "The shop has no roads yet, so none can be proposed. The lead takes in a file of them on Roads.";
    case "trouble":
      return plans.message;
    case "found": {
      if (plans.hours.some((h) => h.plans.length > 0)) return null;
      if (!plans.whole) return "Looking for the soonest drive.";
      const why = plans.hours.find((h) => h.why !== "dark")?.why ?? "dark";
      return `No drive in the coming day. ${NONE[why]}`;
    }
  }
}

/** When to leave and where to go: the hours beside each other, the drives of one, and its road. */
export function PlanList({
  plans,
  choice,
  onChoose,
  children,
}: {
  plans: Plans;
  choice: Choice | null;
  onChoose: (choice: Choice) => void;
  children: ReactNode;
}) {
  const { clockTime } = useTimes();
  const lack = lacking(plans);
  if (lack !== null || plans.kind !== "found")
    return (
      <Paper title="When to leave">
        <p className="max-w-[70ch] text-lg text-soft" role="status">
          {lack}
        </p>
      </Paper>
    );
  const { hours, whole, weatherOf } = plans;
  const good = hours.filter((h) => h.plans.length > 0);
  const all = good.flatMap((h) => h.plans.slice(0, 1));
  const best = all.reduce((a, b) => (b.seconds < a.seconds ? b : a));
  const at = good.findIndex((h) => h.departMs === choice?.departMs);
  const hour = good[at] ?? good[0]!;
  const clock = (ms: number): string => clockTime(new Date(ms).toISOString());
  const step = (by: number): (() => void) | undefined => {
    const to = good[(at < 0 ? 0 : at) + by];
    return to && (() => onChoose({ departMs: to.departMs, nth: 0 }));
  };
  const shown = hour.plans[choice?.nth ?? 0] ?? hour.plans[0]!;
  return (
    <Paper title="When to leave" note={whole ? undefined : "still looking at later hours"}>
      {weatherOf !== null && (
        <p className="mb-2 border-l-4 border-loose pl-3 text-base font-semibold text-loose">
          {weatherOf === "never"
            ? "The weather service does not answer: planned as if it were dry and clear. Look at the sky."
            : `The weather is as it was foretold at ${clockTime(weatherOf)}: look at the sky.`}
        </p>
      )}
      <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
        <div>
          <DayChart
            hours={hours}
            chosen={hour.departMs}
            onChoose={(departMs) => onChoose({ departMs, nth: 0 })}
          />
          <div className="mt-3 flex items-center gap-2 border-b-2 border-hairline pb-2">
            <Button disabled={!step(-1)} onClick={() => step(-1)?.()} aria-label="Earlier hour">
              ←
            </Button>
            <p className="figure flex-1 text-center text-2xl font-semibold">
              {clock(hour.departMs)}
            </p>
            <Button disabled={!step(1)} onClick={() => step(1)?.()} aria-label="Later hour">
              →
            </Button>
          </div>
          {hour.plans[0]!.seconds - best.seconds >= 60 && (
            <p className="flex flex-wrap items-center gap-x-3 py-1 text-base text-soft">
              Shortest of all: {clock(best.departMs)}, {minutes(best.seconds)}.
              <Button look="quiet" onClick={() => onChoose({ departMs: best.departMs, nth: 0 })}>
                Look at it
              </Button>
            </p>
          )}
          <ul className="flex flex-col" aria-label="Drives of this hour">
            {hour.plans.map((p, i) => (
              <li key={i} className="border-b border-dashed border-hairline last:border-0">
                <button
                  type="button"
                  aria-pressed={p === shown}
                  onClick={() => onChoose({ departMs: hour.departMs, nth: i })}
                  className={`grid min-h-16 w-full grid-cols-[1fr_auto] items-baseline gap-x-4 border-l-4 px-3 py-2 text-left hover:bg-wash ${p === shown ? "border-act" : "border-transparent"}`}
                >
                  <b className="text-lg font-semibold leading-tight">
                    {p.names.slice(0, 3).join(", ")}
                  </b>
                  <span className="figure text-xl font-semibold">{minutes(p.seconds)}</span>
                  <span className="col-span-2 text-base text-soft">
                    {sentence(whyWords(p, all))} {formatNumber(100 * p.chance, 0)} of 100 such
                    drives learn.
                  </span>
                </button>
              </li>
            ))}
          </ul>
          {hours.some((h) => h.why === "spent") && (
            <p className="mt-2 text-base text-loose">
              {hours
                .filter((h) => h.why === "spent")
                .map((h) => clock(h.departMs))
                .join(", ")}
              : {NONE.spent}
            </p>
          )}
        </div>
        <div>
          {children}
          <Chosen plan={shown} leaves={clock(shown.departMs)} />
        </div>
      </div>
    </Paper>
  );
}

const sentence = (words: string): string =>
  words === "" ? "" : `${words[0]!.toUpperCase()}${words.slice(1)}.`;

/** What is to be known of one drive, and how it is taken along. */
function Chosen({ plan, leaves }: { plan: DrivePlan; leaves: string }) {
  const [turns, setTurns] = useState(false);
  const save = async (): Promise<void> => {
    const { asGpx } = await import("@/core/drive/gpx");
    const track = asGpx(`Drive at ${leaves}`, plan.legs);
    const url = URL.createObjectURL(new Blob([track], { type: "application/gpx+xml" }));
    const link = document.createElement("a");
    link.href = url;
    link.download = "drive.gpx";
    link.click();
    URL.revokeObjectURL(url);
  };
  return (
    <>
      <p className="mt-2 text-base text-soft">
        {formatNumber(plan.metres / 1000, 1)} km; learned after about {minutes(plan.doneS)}; four
        times out of five back after {Math.round(plan.band[0] / 60)} to {minutes(plan.band[1])}. No
        drive that leaves then is back before {minutes(plan.leastS)}. Dashed: lines often not seen.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => setTurns(true)}>Turns</Button>
        <Button look="quiet" onClick={() => void save()}>
          Track as GPX
        </Button>
      </div>
      <TurnSheet
        open={turns}
        onClose={() => setTurns(false)}
        title={`Turns, leaving at ${leaves}`}
        legs={plan.legs}
      />
    </>
  );
}

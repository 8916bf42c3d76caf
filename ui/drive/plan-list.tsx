import { useState, type ReactNode } from "react";
import type { DrivePlan } from "@/core/drive/plan";
import { turnsOf, type Turn } from "@/core/drive/route";
import { asGpx } from "@/core/drive/gpx";
import { formatNumber } from "@/core/units";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { Paper } from "../primitives/paper";
import { useTimes } from "../settings";
import type { Plans } from "./use-plans";

const minutes = (s: number): string => `${Math.round(s / 60)} min`;

/** Why a departure is better or worse than another, in one sentence. */
function because(plan: DrivePlan, best: DrivePlan, all: readonly DrivePlan[]): string {
  const soonest = all.find((p) => p.departMs === plan.departMs);
  if (soonest && soonest !== plan) {
    const own = plan.names.filter((n) => !soonest.names.includes(n));
    return `Or by other roads${own.length > 0 ? `: ${own.slice(0, 2).join(", ")}` : ""}.`;
  }
  const rain = plan.rain >= 0.1 ? `rain at ${formatNumber(100 * plan.rain, 0)} % of the time` : "";
  const slower = plan.seconds - best.seconds;
  if (plan === best) return rain ? `Soonest of all, ${rain}.` : "Soonest of all.";
  const sun = plan.barred.find((b) => b.kind === "sun");
  const why = sun ? "the sun stands in the lens" : rain;
  const more = `${minutes(Math.max(60, slower))} more`;
  return why ? `${more}: ${why}.` : `${more} by traffic and road.`;
}

/** When to leave and where to go: one drive for each departure, the soonest marked. */
export function PlanList({
  plans,
  chosen,
  onChoose,
  children,
}: {
  plans: Plans;
  chosen: number;
  onChoose: (n: number) => void;
  children: ReactNode;
}) {
  const { clockTime } = useTimes();
  if (plans.kind !== "found")
    return (
      <Paper title="When to leave">
        <p className="text-lg text-soft" role="status">
          {plans.kind === "looking"
            ? "Looking for the soonest drive."
            : plans.kind === "no-roads"
              ? "The shop has no roads yet, so none can be proposed."
              : plans.message}
        </p>
      </Paper>
    );
  const { plans: found, whole } = plans;
  if (found.length === 0)
    return (
      <Paper title="When to leave">
        <p className="text-lg text-soft" role="status">
          {whole
            ? "No drive of the next hours gathers enough within two hours: too dark, too wet, or no such road. Try another day."
            : "Looking for the soonest drive."}
        </p>
      </Paper>
    );
  const best = found.reduce((a, b) => (b.seconds < a.seconds ? b : a));
  return (
    <Paper title="When to leave" note={whole ? undefined : "still looking at later hours"}>
      <div className="grid gap-5 lg:grid-cols-[minmax(280px,1fr)_1.4fr]">
        <ul className="flex flex-col" aria-label="Departures">
          {found.map((p, i) => (
            <li key={i} className="border-b border-dashed border-hairline last:border-0">
              <button
                type="button"
                aria-pressed={i === chosen}
                onClick={() => onChoose(i)}
                className={`grid min-h-14 w-full grid-cols-[auto_1fr_auto] items-baseline gap-x-4 border-l-4 px-3 py-2 text-left hover:bg-wash ${i === chosen ? "border-act" : "border-transparent"}`}
              >
                <b className="figure text-xl font-semibold">
                  {clockTime(new Date(p.departMs).toISOString())}
                </b>
                <span className="text-base text-soft">{because(p, best, found)}</span>
                <span className="figure text-lg">{minutes(p.seconds)}</span>
              </button>
            </li>
          ))}
        </ul>
        <div>
          {children}
          {found[chosen] && <Chosen plan={found[chosen]} />}
        </div>
      </div>
    </Paper>
  );
}

const TURNS: Record<Turn["turn"], string> = {
  leave: "Leave along",
  on: "On along",
  left: "Left into",
  right: "Right into",
  round: "Turn round, along",
};

/** What is to be known of one drive, and how it is taken along. */
function Chosen({ plan }: { plan: DrivePlan }) {
  const [turns, setTurns] = useState(false);
  const { clockTime } = useTimes();
  const leaves = clockTime(new Date(plan.departMs).toISOString());
  const km = (m: number): string => `${formatNumber(m / 1000, 1)} km`;
  const save = (): void => {
    const url = URL.createObjectURL(
      new Blob([asGpx(`Drive at ${leaves}`, plan.legs)], { type: "application/gpx+xml" }),
    );
    const link = document.createElement("a");
    link.href = url;
    link.download = "drive.gpx";
    link.click();
    URL.revokeObjectURL(url);
  };
  return (
    <>
      <p className="mt-2 text-base text-soft">
        {km(plan.metres)}; learned after about {minutes(plan.doneS)}; four times out of five back
        after {Math.round(plan.band[0] / 60)} to {minutes(plan.band[1])}. Dashed: lines often not
        seen.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => setTurns(true)}>Turns</Button>
        <Button look="quiet" onClick={save}>
          Track as GPX
        </Button>
      </div>
      <Dialog
        open={turns}
        onClose={() => setTurns(false)}
        title={`Turns, leaving at ${leaves}`}
        wide
      >
        <ol className="flex flex-col">
          {turnsOf(plan.legs).map((t, i) => (
            <li
              key={i}
              className="flex items-baseline justify-between gap-4 border-b border-dashed border-hairline py-2 text-lg"
            >
              <span>
                {TURNS[t.turn]} <b className="font-semibold">{t.name}</b>
                {t.control === "roundabout"
                  ? ", at the roundabout"
                  : t.control === "signals"
                    ? ", at the lights"
                    : ""}
              </span>
              <span className="figure">{km(t.metres)}</span>
            </li>
          ))}
        </ol>
        <Button className="mt-3" onClick={() => window.print()}>
          Print
        </Button>
      </Dialog>
    </>
  );
}

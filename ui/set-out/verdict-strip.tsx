import { quantitiesOf, quantityWords, type Judged, type Verdict } from "@/core/setout";
import { formatChance } from "@/core/units";
import { Mark, type MarkState } from "../primitives/marks";
import { useSettings } from "../settings";
import { Gauge, type Gauged } from "./gauge";
import { useMinutes } from "./use-minutes";

const WORDS: Record<Verdict["kind"], { word: string; mark: MarkState; tone: string }> = {
  set: { word: "Set", mark: "settled", tone: "text-settled" },
  move: { word: "Move", mark: "loose", tone: "text-act" },
  read: { word: "Read", mark: "open", tone: "text-ink" },
};

const WHY: Record<Verdict["why"], string> = {
  "in-tolerance": "everything inside at once",
  outside: "surely outside",
  "off-centre": "known well enough to move",
  suspect: "a reading does not fit",
  "not-known": "not known well enough",
  unproved: "nothing read since it moved",
  owing: "not measured since it moved",
  unchecked: "a slip could still hide",
  unsolved: "the readings do not solve",
};

/**
 * What is judged, legible from two metres: the verdict, its chance, each quantity against its
 * tolerance.
 */
export function VerdictStrip({ judged }: { judged: Judged }) {
  const { lengths } = useSettings();
  const { solution: s, verdict } = judged;
  const minutes = useMinutes(judged);
  const suspect = verdict.why === "suspect";
  const { mark, tone } = WORDS[verdict.kind];
  const word = suspect ? "Suspect" : WORDS[verdict.kind].word;
  const gauges = quantitiesOf(s).map((q): Gauged => {
    const { name, more, less } = quantityWords(q.id, s.plan.target.kind);
    return { ...q, name, known: Number.isFinite(q.sigma), words: [more, less] };
  });
  return (
    <section
      aria-label="Verdict"
      className="flex flex-col gap-2 border-b border-hairline px-3 py-2 sm:flex-row sm:items-center sm:gap-5"
    >
      <div className="flex shrink-0 items-center gap-3 sm:w-[164px]">
        <Mark state={suspect ? "loose" : mark} size={26} />
        <div className="flex items-baseline gap-3 sm:block">
          <p
            className={`text-3xl font-semibold leading-none sm:text-[34px] ${suspect ? "text-loose" : tone}`}
            data-verdict={verdict.kind}
          >
            {word}
          </p>
          <p className="mt-0.5 text-sm leading-tight text-soft">
            <span className="figure text-base text-ink" data-chance="">
              {formatChance(verdict.chance)}
            </span>{" "}
            <span className="sm:block">
              {verdict.why === "unproved" && !s.readings.some((r) => r.state === "doubt")
                ? s.readings.length === 0
                  ? "nothing read yet"
                  : "not all read yet"
                : WHY[verdict.why]}
            </span>
            {minutes && (
              <span className="sm:block">
                <span className="sm:hidden">, </span>
                {minutes} to set
              </span>
            )}
          </p>
        </div>
      </div>
      <div
        className={`grid min-w-0 flex-1 gap-y-1 sm:flex ${gauges.length > 4 ? "grid-cols-3 gap-x-3 sm:gap-3" : "grid-cols-2 gap-x-4 sm:gap-5"}`}
      >
        {gauges.map((g) => (
          <Gauge key={g.name} g={g} lengths={lengths} crowded={gauges.length > 4} />
        ))}
      </div>
    </section>
  );
}

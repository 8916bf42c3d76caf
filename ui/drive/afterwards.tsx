import { stretchesOf } from "@/core/drive/stretches";
import { CONDITION_NAMES } from "@/core/drive/words";
import { CAUSES, dearest, type Driven } from "@/core/job/driven";
import { DRIVE_OUTCOMES } from "@/core/job/walk";
import { formatNumber } from "@/core/units";
import { useJob } from "../bench/job-store";
import { Paper } from "../primitives/paper";
import { useTimes } from "../settings";

const clock = (s: number): string =>
  `${Math.floor(s / 60)}:${String(Math.round(s % 60)).padStart(2, "0")} min`;

/** What came of a drive: how much of it counted, and what the rest was lost to. */
export function Afterwards({ drive }: { drive: Driven }) {
  const { ground } = useJob();
  const { clockTime } = useTimes();
  const { progress, samples, end, unknown } = drive;
  const rules = ground.sheet.drive;
  const [from, to] = [samples[0]?.atMs ?? 0, samples.at(-1)?.atMs ?? 0];
  const whole = (to - from) / 1000;
  const lost = progress ? dearest(progress) : [];
  const told = rules && {
    ...rules,
    conditions: rules.conditions.filter((c) => !unknown.includes(c.kind)),
  };
  const strip = told && samples.length > 1 ? stretchesOf(told, samples).stretches : [];
  return (
    <Paper
      title={end ? `Drive: ${DRIVE_OUTCOMES[end.body.outcome]}` : "How much of it counted"}
      note={end ? `${clockTime(end.at)} ${end.by.initials}` : undefined}
    >
      {end && (
        <p className="mb-3 text-lg">
          {[
            end.body.says && `It showed ${end.body.says}`,
            end.body.remark,
            `${end.body.drove} drove${end.body.watched ? `, ${end.body.watched} watched` : ", alone"}`,
          ]
            .filter(Boolean)
            .join(". ")}
          .
        </p>
      )}
      {!progress || !rules ? (
        <p className="text-lg text-soft">
          No log was kept of it: what is known of this drive is what was written down.
        </p>
      ) : (
        <>
          <p className="text-2xl font-semibold">
            {clock(progress.seconds)} of {clock(whole)} counted.
          </p>
          {unknown.length > 0 && (
            <p className="text-lg text-loose">
              Its log says nothing of {unknown.map((k) => CONDITION_NAMES[k]).join(", ")}: whether
              that held nobody knows.
            </p>
          )}
          <svg
            role="img"
            aria-label="What counted, along the drive"
            viewBox="0 0 1000 28"
            preserveAspectRatio="none"
            className="mt-3 h-7 w-full"
          >
            <rect width={1000} height={28} fill="var(--hairline)" />
            {strip.map((s) => (
              <rect
                key={s.fromMs}
                x={(1000 * (s.fromMs - from)) / (to - from)}
                width={(1000 * (s.toMs - s.fromMs)) / (to - from)}
                y={s.cause === null ? 0 : 14}
                height={s.cause === null ? 28 : 14}
                fill={s.cause === null ? "var(--settled)" : "var(--loose)"}
              />
            ))}
          </svg>
          <p className="mt-1 text-base text-soft">
            Full height: it counted. Half: it waited. After it was done nothing is drawn.
          </p>
          <ul className="mt-3 grid gap-x-8 md:grid-cols-2" aria-label="What cost most">
            {lost.map(([cause, s]) => (
              <li
                key={cause}
                className="flex justify-between border-b border-dashed border-hairline py-1.5 text-lg"
              >
                <span>{CAUSES[cause]}</span>
                <span className="figure">{clock(s)}</span>
              </li>
            ))}
            {progress.losses.length > 0 && (
              <li className="py-1.5 text-lg text-loose">
                Thrown away {formatNumber(progress.losses.length, 0)} times:{" "}
                {progress.losses.map((l) => CAUSES[l.kind]).join(", ")}.
              </li>
            )}
          </ul>
        </>
      )}
    </Paper>
  );
}

import dynamic from "next/dynamic";
import { CONDITION_NAMES } from "@/core/drive/words";
import { CAUSES, dearest, type Driven } from "@/core/job/driven";
import { DRIVE_OUTCOMES } from "@/core/job/walk";
import { formatNumber } from "@/core/units";
import { useJob } from "../bench/job-store";
import { Paper } from "../primitives/paper";
import { useTimes } from "../settings";

const Timeline = dynamic(() => import("./timeline").then((m) => m.Timeline), {
  ssr: false,
  loading: () => <div className="h-[420px]" />,
});

const clock = (s: number): string =>
  `${Math.floor(s / 60)}:${String(Math.round(s % 60)).padStart(2, "0")} min`;

/** What came of a drive: how much of it counted, and what the rest was lost to. */
export function Afterwards({ drive }: { drive: Driven }) {
  const { ground } = useJob();
  const { clockTime } = useTimes();
  const { progress, samples, leave, end, unknown } = drive;
  const rules = ground.sheet.drive;
  const [from, to] = [samples[0]?.atMs ?? 0, samples.at(-1)?.atMs ?? 0];
  const whole = (to - from) / 1000;
  const lost = progress ? dearest(progress) : [];
  const told = rules && {
    ...rules,
    conditions: rules.conditions.filter((c) => !unknown.includes(c.kind)),
  };
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
          {leave?.body.planned && (
            <p className="text-lg text-soft">
              Planned: {Math.round(leave.body.planned.seconds / 60)} min, four times out of five{" "}
              {Math.round(leave.body.planned.from / 60)} to {Math.round(leave.body.planned.to / 60)}{" "}
              min.
            </p>
          )}
          {unknown.length > 0 && (
            <p className="text-lg text-loose">
              Its log says nothing of {unknown.map((k) => CONDITION_NAMES[k]).join(", ")}: whether
              that held nobody knows.
            </p>
          )}
          {told && samples.length > 1 && <Timeline rules={told} samples={samples} />}
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

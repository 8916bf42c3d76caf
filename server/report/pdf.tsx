import { Path, Svg, View } from "@react-pdf/renderer";
import {
  aimForetoldLine,
  changedAimLine,
  driveLine,
  refusalLine,
  roadLine,
  aimLearned,
  checkLine,
  arrivalLines,
  glassLine,
  owedLine,
  halvesLine,
  sourceLine,
  readingFigures,
  standLines,
  runLine,
  timeLines,
  verdictLine,
  witnessLine,
  type CalibrationRecord,
  type JobRecord,
  type TargetRecord,
} from "@/core/record";
import { ownLimitWords, targetsOf, type Sheet } from "@/core/sheet";
import { formatNumber, FIRST_ZONE, timesIn, type Times } from "@/core/units";
import { Codes, Facts, Frame, Part, Photos, Results, Seal, type ReportPhoto } from "./frame";
import { INK, renderPaper, Row, styles, Text } from "./paper";
import { Plan } from "./plan";
import { Plumbs } from "./plumbs";

/** One sheet carried out: each target as it was set out, then the routine. */
function Calibration({ c, of, times }: { c: CalibrationRecord; of: number; times: Times }) {
  const { run } = c;
  const named = (part: string): string => (of > 1 ? `${part}: ${c.sheet.title}` : part);
  return (
    <>
      {c.targets.map((t, i) => (
        <SetOut
          key={t.id}
          t={t}
          sheet={c.sheet}
          times={times}
          title={c.targets.length > 1 ? `${named("Set out")}, ${t.name}` : named("Set out")}
          first={i === 0}
        />
      ))}
      <Part title={named("Run")}>
        <Text style={{ fontWeight: 600, marginVertical: 3 }}>{runLine(c)}</Text>
        {run.tool && (
          <Text style={styles.soft}>
            {run.tool.name}, serial {run.tool.serial}, software {run.tool.software}. Attempts:{" "}
            {run.attempts}.{run.simulated ? " Tool, instruments and vehicle were simulated." : ""}
          </Text>
        )}
        {run.board && c.targets.every((t) => !t.check) && (
          <Text style={styles.soft}>
            Board {run.board.code} checked, arrow up, {times.clockTime(run.board.at)}{" "}
            {run.board.by.initials}
            {run.board.reason ? `. Worn: ${run.board.reason}` : ""}.
          </Text>
        )}
        {run.result && aimLearned(run.result) && (
          <Facts
            facts={[
              ["Aim learned", aimLearned(run.result)!],
              ...(run.foretold
                ? ([["Against that", aimForetoldLine(run)!]] as [string, string][])
                : []),
              ...(run.changedAim
                ? ([["Changed by this job", changedAimLine(run)!]] as [string, string][])
                : []),
            ]}
          />
        )}
        {run.refusals && (
          <Facts
            facts={run.refusals.map((r): [string, string] => [
              `Refused ${times.clockTime(r.at)}`,
              refusalLine(r),
            ])}
          />
        )}
        {run.log.map((l, i) => (
          <Row
            key={i}
            cells={[l.label, l.value, `${times.clockTime(l.at)} ${l.by.initials}`]}
            widths={[3.2, 3, 1]}
          />
        ))}
      </Part>
      {c.drives && (
        <Part title={named("Drive")}>
          {c.drives.length === 0 && (
            <Text>Not driven: what the sheet asks of the road is still open.</Text>
          )}
          <Facts
            facts={c.drives.map((d): [string, string] => [times.clockTime(d.at), driveLine(d)])}
          />
        </Part>
      )}
    </>
  );
}

/** What was read and done of one target, and where it was accepted. */
function SetOut({
  t,
  sheet,
  title,
  first,
  times: { clockTime, dateAndTime },
}: {
  t: TargetRecord;
  sheet: Pick<Sheet, "setups">;
  title: string;
  first: boolean;
  times: Times;
}) {
  const widths = [0.3, 2, 3.05, 1.05, 0.5, 1.3, 0.85, 1.3];
  // A target nobody has come to yet is named only where it is the one to begin with.
  if (!first && t.readings.length === 0 && !t.settled)
    return (
      <Part title={title}>
        <Text style={styles.soft}>Not begun.</Text>
      </Part>
    );
  return (
    <Part title={title}>
      <Text style={{ fontWeight: 600, marginVertical: 3 }}>{verdictLine(t)}</Text>
      {[checkLine(t, sheet, { clockTime }), halvesLine(t), witnessLine(t)].map(
        (line) =>
          line && (
            <Text key={line} style={styles.soft}>
              {line}
            </Text>
          ),
      )}
      {t.settled && (
        <>
          <Results t={t} sheet={sheet} />
          <Plumbs t={t} sheet={sheet} />
          <Plan t={t} />
          <Text style={styles.soft}>
            Accepted {dateAndTime(t.settled.at)} by {t.settled.by.name}. Carried by: {t.stand}. Way:{" "}
            {t.way.toLowerCase()}.
          </Text>
        </>
      )}
      <View style={{ height: 8 }} />
      <Row
        head
        cells={["", "Reading", "Value", "Residual", "w", "Instrument", "When", "State"]}
        widths={widths}
        figures={[2, 3, 4]}
      />
      {standLines(t).map(({ reading: r, act }) => {
        if (!r)
          return (
            <Row
              key={act.at + act.say}
              cells={[act.say, `${clockTime(act.at)} ${act.by.initials}`]}
              widths={[5, 1]}
            />
          );
        const { value, residual } = readingFigures(r);
        const state = {
          counts: "counts",
          doubt: "before a move",
          struck: `struck: ${r.struckReason ?? ""}`,
        }[r.state];
        return (
          <Row
            key={r.id}
            cells={[
              String(t.readings.indexOf(r) + 1),
              r.name.replace("→", "to"),
              value,
              residual,
              r.w === null ? "–" : formatNumber(r.w, 1),
              r.instrument.name,
              `${clockTime(r.at)} ${r.by.initials}`,
              state,
            ]}
            widths={widths}
            figures={[2, 3, 4]}
          />
        );
      })}
    </Part>
  );
}

/** For the file: everything that is known of the job. */
export function FileReport({ record, photos }: { record: JobRecord; photos: ReportPhoto[] }) {
  const { job, vehicle, owed, calibrations } = record;
  const times = timesIn(job.zone ?? FIRST_ZONE);
  const { clockTime, dateAndTime } = times;
  return (
    <Frame record={record} title={`Calibration record, job ${job.number}`}>
      <Part title="Vehicle and job">
        <Facts
          facts={[
            [
              "VIN",
              vehicle.vin +
                (vehicle.vinKeptBecause
                  ? ` (kept although it fails its check: ${vehicle.vinKeptBecause})`
                  : ""),
            ],
            ["Plate", vehicle.plate || "not given"],
            ["Customer", job.customer],
            ["Repair order", job.order || "not given"],
            ...(glassLine(record) ? ([["Glass", glassLine(record)!]] as [string, string][]) : []),
            ["Times", `as the shop’s clock shows them, ${times.zone}`],
            ["Taken in", `${dateAndTime(job.takenInAt)} by ${job.takenInBy.name}`],
            ...(job.promisedAt
              ? ([["Promised for", dateAndTime(job.promisedAt)]] as [string, string][])
              : []),
            ...arrivalLines(record),
          ]}
        />
      </Part>
      <Part title="Why it was owed">
        <Facts
          facts={[
            ["Done to the vehicle", owed.done.join(", ")],
            ...owed.lines.map((l): [string, string] => [l.name, owedLine(l)]),
            ...calibrations.flatMap(({ sheet }): [string, string][] => [
              ["Sheet", `${sheet.title}, version ${sheet.version}`],
              ["Source", sourceLine(sheet, record)],
              ...targetsOf(sheet)
                .slice(0, 1)
                .flatMap((t): [string, string][] => {
                  const own = ownLimitWords(t);
                  return own ? [["Limits", own]] : [];
                }),
            ]),
          ]}
        />
      </Part>
      <Part title="Checks">
        {record.checks.length === 0 && <Text style={styles.soft}>None recorded.</Text>}
        {record.checks.map((c, i) => (
          <Row
            key={i}
            cells={[
              c.ask,
              c.measured
                .map((m) => `${m.name} ${m.value}${m.ok ? "" : " (out of limits)"}`)
                .join("; "),
              c.outcome + (c.reason ? `: ${c.reason}` : ""),
              `${clockTime(c.at)} ${c.by.initials}`,
            ]}
            widths={[2.6, 3, 1.4, 0.9]}
          />
        ))}
      </Part>
      <Codes record={record} times={times} />
      {(record.road || record.lampsNow) && (
        <Part title="Road check">
          <Facts
            facts={[
              ...(record.lampsNow
                ? ([["Dash after the work", record.lampsNow.words]] as [string, string][])
                : []),
              ...(record.road ?? []).map((t): [string, string] => [t.name, roadLine(t)]),
            ]}
          />
        </Part>
      )}
      {calibrations.map((c) => (
        <Calibration times={times} key={c.id} c={c} of={calibrations.length} />
      ))}
      <Part title="Time">
        {timeLines(record).map((t) => (
          <Text key={t}>{t}</Text>
        ))}
      </Part>
      {record.consent && (
        <Part title="Consent to drive">
          <Text>{record.consent.words}</Text>
          <Svg viewBox="0 0 1000 300" style={{ width: 180, height: 54, marginTop: 4 }}>
            {record.consent.strokes.map((s, i) => (
              <Path
                key={i}
                d={s.map(([x, y], k) => `${k === 0 ? "M" : "L"}${x} ${y}`).join(" ")}
                stroke={INK}
                strokeWidth={5}
                fill="none"
              />
            ))}
          </Svg>
          <Text style={styles.soft}>
            {record.consent.name}, {dateAndTime(record.consent.at)}, before {record.consent.by.name}
            .
          </Text>
        </Part>
      )}
      <Photos photos={photos} times={times} />
      {record.open.length > 0 && (
        <Part title="Still open">
          {record.open.map((o) => (
            <Text key={o}>{o}</Text>
          ))}
        </Part>
      )}
      <Seal record={record} />
    </Frame>
  );
}

/**
 * Renders the report of a record; every figure comes from the record. Photos that are not kept here
 * are left out.
 */
export const renderReport = (record: JobRecord, photos: ReportPhoto[]): Promise<Buffer> =>
  // A reading's arrow is printed as a word: it needs no letter.
  renderPaper(JSON.stringify(record).replaceAll("→", "to"), FileReport({ record, photos }));

import {
  aimForetoldLine,
  changedAimLine,
  owedLine,
  driveLine,
  runLine,
  sourceLine,
  timeLines,
  verdictLine,
  type CalibrationRecord,
  type JobRecord,
} from "@/core/record";
import { SYSTEMS } from "@/core/owed";
import { FIRST_ZONE, timesIn } from "@/core/units";
import { Codes, Facts, Frame, Part, Photos, Results, Seal, type ReportPhoto } from "./frame";
import { renderPaper, styles, Text } from "./paper";

/** One calibration by its result: how it was left, and what the vehicle said. */
function AsLeft({ c }: { c: CalibrationRecord }) {
  const foretold = aimForetoldLine(c.run);
  const changed = changedAimLine(c.run);
  return (
    <Part title={`As left: ${SYSTEMS[c.sheet.appliesTo.system]}`}>
      <Text style={{ fontWeight: 600, marginVertical: 3 }}>{runLine(c)}</Text>
      {c.drives?.map((d) => (
        <Text key={d.at} style={{ marginBottom: 2 }}>
          Drive: {driveLine(d)}.
        </Text>
      ))}
      {changed && <Text style={{ marginBottom: 2 }}>{changed}</Text>}
      {foretold && <Text style={styles.soft}>{foretold}</Text>}
      {c.targets
        .filter((t) => t.settled)
        .flatMap((t) => [
          <Text key={t.id} style={{ marginTop: 4 }}>
            {c.targets.length > 1 ? `${t.name}. ` : ""}
            {verdictLine(t)}
          </Text>,
          <Results key={`${t.id}-results`} t={t} sheet={c.sheet} />,
        ])}
    </Part>
  );
}

/** For who pays: why it was owed, what was done, the proof, and the time it took. */
export function InsurerReport({ record, photos }: { record: JobRecord; photos: ReportPhoto[] }) {
  const { job, vehicle, owed, calibrations } = record;
  const times = timesIn(job.zone ?? FIRST_ZONE);
  return (
    <Frame record={record} title={`Camera calibration, job ${job.number}`}>
      <Part title="Vehicle and order">
        <Facts
          facts={[
            ["VIN", vehicle.vin],
            ["Plate", vehicle.plate || "not given"],
            ["Customer", job.customer],
            ["Repair order", job.order || "not given"],
            ["Taken in", `${times.dateAndTime(job.takenInAt)} by ${job.takenInBy.name}`],
          ]}
        />
      </Part>
      <Part title="Why">
        <Facts
          facts={[
            ["Done to the vehicle", owed.done.join(", ")],
            ...owed.lines.map((l): [string, string] => [l.name, owedLine(l)]),
            ...calibrations.map(({ sheet }): [string, string] => [
              "Source",
              sourceLine(sheet, record),
            ]),
          ]}
        />
      </Part>
      {calibrations.map((c) => (
        <AsLeft key={c.id} c={c} />
      ))}
      <Codes record={record} times={times} />
      <Part title="Time">
        {timeLines(record).map((t) => (
          <Text key={t}>{t}</Text>
        ))}
      </Part>
      {record.open.length > 0 && (
        <Part title="Still open">
          {record.open.map((o) => (
            <Text key={o}>{o}</Text>
          ))}
        </Part>
      )}
      <Photos photos={photos} times={times} />
      <Seal record={record} />
    </Frame>
  );
}

export const renderInsurerReport = (record: JobRecord, photos: ReportPhoto[]): Promise<Buffer> =>
  renderPaper(JSON.stringify(record).replaceAll("→", "to"), InsurerReport({ record, photos }));

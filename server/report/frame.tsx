import { Document, Image, Page, Text as PlainText, View } from "@react-pdf/renderer";
import { Children, type ReactNode } from "react";
import { codeLines, resultLines, type JobRecord, type TargetRecord } from "@/core/record";
import type { Sheet } from "@/core/sheet";
import { FIRST_ZONE, timesIn, type Times } from "@/core/units";
import { missingWords } from "./fonts";
import { Row, styles, Text, useFaces } from "./paper";
import { Square } from "./square";

/** A heading keeps what follows it first on its own page: it never stands alone at a foot. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  const [first, ...rest] = Children.toArray(children);
  return (
    <View>
      <View wrap={false}>
        <Text style={styles.h2}>{title}</Text>
        {first}
      </View>
      {rest}
    </View>
  );
}

export const Facts = ({ facts }: { facts: [string, string][] }) => (
  <>
    {facts.map(([name, value], i) => (
      <Row key={i} cells={[name, value]} widths={[1, 3]} />
    ))}
  </>
);

/** A photo of the record with its bytes. */
export type ReportPhoto = JobRecord["photos"][number] & { jpeg: Buffer };

/** What every paper of a record has: whose it is, what it is of, who answers for it. */
export function Frame({
  record,
  title,
  children,
}: {
  record: JobRecord;
  title: string;
  children: ReactNode;
}) {
  const { job, vehicle, signed, handedOver } = record;
  const { dateAndTime } = timesIn(job.zone ?? FIRST_ZONE);
  const looked = signed
    ? `Looked through and signed ${dateAndTime(signed.at)} by ${signed.by.name}. `
    : "";
  return (
    <Document title={title} author="Iridel" language="en">
      <Page size="A4" style={styles.page}>
        {/* Behind everything, on every page, until somebody answers for it. */}
        {!handedOver && (
          <Text fixed style={styles.draft}>
            DRAFT
          </Text>
        )}
        <View style={{ flexDirection: "row", justifyContent: "space-between", gap: 24 }}>
          <View style={{ flex: 1 }}>
            <Text style={styles.title}>{title}</Text>
            <Text style={styles.soft}>
              {vehicle.make} {vehicle.model}, {vehicle.variant}
            </Text>
          </View>
          {job.shop && (
            <View style={{ width: 180, textAlign: "right" }}>
              <Text style={{ fontSize: 11, fontWeight: 600 }}>{job.shop.name}</Text>
              {job.shop.address.split("\n").map((line, i) => (
                <Text key={i} style={styles.soft}>
                  {line}
                </Text>
              ))}
            </View>
          )}
        </View>
        {children}
        <MissingSigns />
        <View style={{ marginTop: 14 }} wrap={false}>
          <Text>
            {handedOver
              ? `${looked}Handed over ${dateAndTime(handedOver.at)} by ${handedOver.by.name}.`
              : "Not handed over yet: this is a working copy."}
          </Text>
        </View>
        <Text style={styles.foot} fixed>
          {record.notice}
        </Text>
        <PageNumber />
      </Page>
    </Document>
  );
}

/** The quantities of a target as it was accepted, against its sheet. */
export function Results({ t, sheet }: { t: TargetRecord; sheet: Pick<Sheet, "setups"> }) {
  const widths = [3, 1.2, 1.2, 1.2, 1.2];
  const figures = [1, 2, 3, 4];
  return (
    <>
      <Row
        head
        cells={["Quantity", "Sheet", "Error", "Std. unc.", "Allowed"]}
        widths={widths}
        figures={figures}
      />
      {resultLines(t, sheet).map((l) => (
        <Row
          key={l.name}
          cells={[l.name, l.wanted, l.error, l.sigma, l.tolerance]}
          widths={widths}
          figures={figures}
        />
      ))}
    </>
  );
}

/** The control units before the work and after it; nothing where nobody read them. */
export function Codes({ record, times }: { record: JobRecord; times: Times }) {
  const codes = codeLines(record, times);
  return (
    codes && (
      <Part title="Fault codes before and after">
        <Text style={styles.soft}>{codes.head}</Text>
        {codes.rows.map((cells) => (
          <Row key={cells.join()} cells={cells} widths={[3.2, 2.2, 2.6]} />
        ))}
        {codes.quiet !== "" && (
          <Text style={styles.soft}>Answering, nothing stored: {codes.quiet}.</Text>
        )}
      </Part>
    )
  );
}

/** Photos three to a row; a row is never cut, and the heading keeps the first. */
export function Photos({
  photos,
  times: { dateAndTime },
}: {
  photos: ReportPhoto[];
  times: Times;
}) {
  if (photos.length === 0) return null;
  const rows = Array.from({ length: Math.ceil(photos.length / 3) }, (_, i) =>
    photos.slice(3 * i, 3 * i + 3),
  );
  return (
    <Part title="Photos">
      {rows.map((row) => (
        <View
          key={row[0]!.sha256}
          wrap={false}
          style={{ flexDirection: "row", gap: 8, marginTop: 4, marginBottom: 4 }}
        >
          {row.map((photo) => (
            <View key={photo.sha256} style={{ width: 166 }}>
              {/* eslint-disable-next-line jsx-a11y/alt-text -- on paper there is no alternative text */}
              <Image
                src={{ data: photo.jpeg, format: "jpg" }}
                style={{ width: 166, height: 124, objectFit: "cover" }}
              />
              <Text style={[styles.soft, { fontSize: 7 }]}>
                {photo.shows}
                {photo.takenAt ? `, taken ${dateAndTime(photo.takenAt)}` : ""}. SHA-256{" "}
                {photo.sha256.slice(0, 12)}
              </Text>
            </View>
          ))}
        </View>
      ))}
    </Part>
  );
}

/** Which log the record was made from. */
export function Seal({ record }: { record: JobRecord }) {
  return (
    record.seal && (
      <Part title="Log">
        <Text>
          {`Version ${record.seal.version} of this record, made by Iridel ${record.seal.program} from ${record.seal.lines} lines of the job’s log, each sealed to the one before it. Head of the log:`}
        </Text>
        <View
          style={{ flexDirection: "row", alignItems: "center", gap: 10, padding: 6 }}
          wrap={false}
        >
          <Square text={record.seal.head} size={64} />
          <Text figures style={{ fontSize: 7 }}>
            {record.seal.head}
          </Text>
        </View>
        <Text style={styles.soft}>
          Nothing before this head can be changed without another head coming out. Whoever holds the
          database can write anew what follows the last head that left the house.
        </Text>
      </Part>
    )
  );
}

function PageNumber() {
  const faces = useFaces();
  return (
    <View style={styles.number} fixed>
      <PlainText
        style={{ fontFamily: faces.words }}
        render={({ pageNumber, totalPages }) => `${pageNumber} / ${totalPages}`}
      />
    </View>
  );
}

/** Says which signs stand as boxes, where any do. */
function MissingSigns() {
  const words = missingWords(useFaces().missing);
  return words ? <Text style={[styles.soft, { marginTop: 10 }]}>{words}</Text> : null;
}

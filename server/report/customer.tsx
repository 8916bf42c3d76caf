import { View } from "@react-pdf/renderer";
import { customerWords, type JobRecord } from "@/core/record";
import { FIRST_ZONE, timesIn } from "@/core/units";
import { Facts, Frame, Part } from "./frame";
import { renderPaper, Text } from "./paper";

/** Cameras help; they take nothing off whoever drives. */
const CARE = [
  "Cameras and radar assist whoever drives; they replace nobody’s eyes. Drive as you would without them until you trust them again.",
  "If a warning lamp comes on, or a function warns without cause, late or not at all: switch it off and bring the vehicle back with this page.",
  "After other glass, body, wheel or suspension work the cameras may have to be set up again. Show this page to who does it.",
];

const LARGE = { fontSize: 11, lineHeight: 1.4, marginVertical: 2 };

/** One page for the owner: what was done, what was not, what that means. */
export function CustomerPage({ record }: { record: JobRecord }) {
  const { job, vehicle } = record;
  const { dateAndTime } = timesIn(job.zone ?? FIRST_ZONE);
  const { done, notProved, settings } = customerWords(record);
  const open = record.open.length > 0 ? [`Still open at the shop: ${record.open.join("; ")}.`] : [];
  return (
    <Frame record={record} title="Your vehicle’s cameras">
      <View style={{ marginTop: 10 }}>
        <Facts
          facts={[
            ["Customer", job.customer],
            ["Plate, VIN", [vehicle.plate, vehicle.vin].filter(Boolean).join(", ")],
            ["Job", `${job.number}, taken in ${dateAndTime(job.takenInAt)}`],
          ]}
        />
      </View>
      <Part title="What was done">
        {done.map((d) => (
          <Text key={d.name + d.say} style={LARGE}>
            <Text style={[LARGE, { fontWeight: 600 }]}>{d.name}.</Text> {d.say}
          </Text>
        ))}
      </Part>
      <Part title="What is not done, or not proved">
        {notProved.length + open.length === 0 && (
          <Text style={LARGE}>Nothing: all that was owed was done and checked.</Text>
        )}
        {[...notProved, ...open].map((line) => (
          <Text key={line} style={LARGE}>
            {line}
          </Text>
        ))}
      </Part>
      {settings.length > 0 && (
        <Part title="Your own settings, as you had them">
          <Text style={LARGE}>{settings.join("; ")}.</Text>
        </Part>
      )}
      <Part title="What to mind">
        {CARE.map((line) => (
          <Text key={line} style={LARGE}>
            {line}
          </Text>
        ))}
      </Part>
    </Frame>
  );
}

export const renderCustomerPage = (record: JobRecord): Promise<Buffer> =>
  renderPaper(JSON.stringify(record).replaceAll("→", "to"), CustomerPage({ record }));

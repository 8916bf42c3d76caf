import { Document, Line, Page, Svg, View } from "@react-pdf/renderer";
import {
  drawingLines,
  isByHand,
  SCHOOLS,
  slotValue,
  type MarkOut,
  type SetOutPlan,
} from "@/core/setout";
import { SCHOOL_WORDS } from "@/core/setout/school-words";
import { DISTANCE_FROM_NAMES, type Sheet } from "@/core/sheet";
import { formatChance, formatNumber, formatQuantity } from "@/core/units";
import { DATUM_NAMES, hubName } from "@/core/vehicle";
import { renderPaper, Row, styles, SvgWords, Text } from "./paper";

/**
 * The mark-out of one way of setting out, for the wall of the bay: drawing to scale, readings in
 * order, how sure each makes.
 */
export function renderMarkOut(
  plan: SetOutPlan,
  m: MarkOut,
  job: number,
  sheet: Pick<Sheet, "title" | "version">,
): Promise<Buffer> {
  const xs = m.marks.map((p) => p.xMm);
  const ys = m.marks.map((p) => p.yMm);
  // The largest usual scale at which the bay fits across an A4 page: one point is 0.3528 mm.
  const width = Math.max(...xs) - Math.min(...xs) + 500;
  const scale = [10, 20, 25, 50, 100].find((s) => width / s / 0.35278 <= 515) ?? 200;
  const pt = (mm: number): number => mm / scale / 0.35278;
  const [x0, y1] = [Math.min(...xs) - 250, Math.max(...ys) + 250];
  const size = { width: pt(width), height: pt(Math.max(...ys) - Math.min(...ys) + 500) };
  const at = (x: number, y: number) => ({ x: pt(x - x0), y: pt(y1 - y) });
  const widths = [0.3, 3.4, 1.2, 1, 1];
  const { target, vehicle, stand } = plan;
  const everything = JSON.stringify([
    vehicle.make,
    vehicle.model,
    sheet.title,
    stand.id,
    stand.name,
  ]);
  return renderPaper(
    everything,
    <Document title={`Mark-out, job ${job}`} author="Iridel" language="en">
      <Page size="A4" style={styles.page}>
        <Text style={styles.title}>Mark-out, job {job}</Text>
        <Text style={styles.soft}>
          {`${vehicle.make} ${vehicle.model}. ${sheet.title}, version ${sheet.version}. ${SCHOOLS[m.school].name}; ${isByHand(target) ? "by hand" : `stand ${stand.id}`}.`}
        </Text>
        <Text style={{ marginTop: 6 }}>{placeWords(plan, m.heightMm)}</Text>
        <Text style={styles.soft}>{SCHOOL_WORDS[m.school].note ?? ""}</Text>
        <View style={{ marginVertical: 8 }}>
          <Svg {...size} viewBox={`0 0 ${size.width} ${size.height}`}>
            {drawingLines(m).map((l, i) => {
              const [a, b] = [at(...l.from), at(...l.to)];
              return (
                <Line
                  key={i}
                  x1={a.x}
                  y1={a.y}
                  x2={b.x}
                  y2={b.y}
                  stroke="#1E232B"
                  strokeWidth={l.layer === "board" ? 2 : 0.6}
                  strokeDasharray={l.layer === "line" ? "5 3" : undefined}
                />
              );
            })}
            {m.marks.map((p) => {
              const c = at(p.xMm, p.yMm);
              return (
                <Line
                  key={p.id}
                  x1={c.x - 4}
                  y1={c.y}
                  x2={c.x + 4}
                  y2={c.y}
                  stroke="#1E232B"
                  strokeWidth={1}
                />
              );
            })}
            {m.marks.map((p) => {
              const c = at(p.xMm, p.yMm);
              return <SvgWords key={p.id} x={c.x + 5} y={c.y - 4} size={6} words={p.name} />;
            })}
          </Svg>
          <Text
            style={styles.soft}
          >{`Scale 1 : ${scale} when printed at full size. Vehicle nose to the right, vehicle left up.`}</Text>
        </View>
        <Row
          head
          cells={["", "Reading", "Right when", "Within", "Then sure"]}
          widths={widths}
          figures={[2, 3, 4]}
        />
        {m.steps.map((s, i) => (
          <Row
            key={s.slot.id}
            cells={[
              String(i + 1),
              s.slot.act,
              slotValue(s.slot, s.expected, "mm"),
              s.slot.quantity.dimension === "angle"
                ? formatQuantity(s.within, "deg")
                : `± ${formatNumber(s.within, 1)} mm`,
              s.slot.observes.in === "plan" ? formatChance(s.chance) : "",
            ]}
            widths={widths}
            figures={[2, 3, 4]}
          />
        ))}
        <Text style={[styles.soft, { marginTop: 6 }]}>
          “Within” is two standard deviations of that reading on a board that stands exactly right:
          instrument, hubs and badges. “Then sure” is the chance of ending inside the tolerance in
          the plan once it and the readings above it are taken.
        </Text>
        <Text style={styles.foot} fixed>
          The vehicle maker’s current service information decides. Chocks in and park brake on
          before anyone works at the wheels.
        </Text>
      </Page>
    </Document>,
  );
}

/** Where the target belongs, in one line. */
function placeWords({ target, vehicle }: SetOutPlan, heightMm: number): string {
  const { placement, object } = target;
  const mat = isByHand(target);
  if (target.line) {
    const hub = hubName(vehicle, target.line.from, object.side === "left");
    return `${target.name}: ${formatQuantity(Math.abs(placement.alongMm), "mm")} ${placement.alongMm < 0 ? "behind" : "ahead of"} the ${hub}, ${formatQuantity(Math.abs(placement.acrossMm), "mm")} out from the line through it and the ${hubName(vehicle, target.line.through, object.side === "left")}.`;
  }
  const ahead = `${formatQuantity(Math.abs(placement.alongMm), "mm")} ${placement.alongMm < 0 ? "behind" : "ahead of"} ${DISTANCE_FROM_NAMES[target.distanceFrom]}`;
  const across = `${formatQuantity(placement.acrossMm, "mm")} across the ${DATUM_NAMES[target.datum]}`;
  return mat
    ? `${target.name}: cross line ${ahead}, its middle ${across}. Mat ${object.code}, arrow forward.`
    : `Board centre ${ahead}, ${across}, ${formatQuantity(heightMm, "mm")} above the floor at the stand. Board ${object.code}.`;
}

import { Line, Rect, Svg, View } from "@react-pdf/renderer";
import type { TargetRecord } from "@/core/record";
import { INK, styles, SvgWords, Text } from "./paper";

/** One point of paper, mm. */
const POINT_MM = 0.35278;
/** What there is room for on a page, points. */
const ROOM = { width: 515, height: 330 };
const SCALES = [10, 20, 25, 50, 100, 200];
/** Floor that is drawn round everything, mm. */
const MARGIN = 300;
/** Where along its reading a number sits, in turn: crossing readings keep theirs apart. */
const PLACES = [0.36, 0.62, 0.24, 0.74, 0.5, 0.16];

/** The set-out as it was accepted, to scale: each reading that counts with its number in the table. */
export function Plan({ t }: { t: TargetRecord }) {
  const { drawing } = t;
  if (!drawing || drawing.readings.length === 0) return null;
  const spots = [
    ...drawing.marks.map((m) => m.at),
    ...[...drawing.lines, ...drawing.readings].flatMap((l) => [l.from, l.to]),
  ];
  const [xs, ys] = [spots.map((s) => s[0]), spots.map((s) => s[1])];
  const [x0, y1] = [Math.min(...xs) - MARGIN, Math.max(...ys) + MARGIN];
  const [wide, high] = [Math.max(...xs) + MARGIN - x0, y1 - Math.min(...ys) + MARGIN];
  const fits = (s: number): boolean =>
    wide / s / POINT_MM <= ROOM.width && high / s / POINT_MM <= ROOM.height;
  const scale = SCALES.find(fits) ?? SCALES.at(-1)!;
  const pt = (mm: number): number => mm / scale / POINT_MM;
  const to = ([x, y]: readonly [number, number]) => ({ x: pt(x - x0), y: pt(y1 - y) });
  const size = { width: pt(wide), height: pt(high) };
  const numbers = new Map(t.readings.map((r, i) => [r.id, i + 1]));
  return (
    <View wrap={false} style={{ marginTop: 8 }}>
      <Svg {...size} viewBox={`0 0 ${size.width} ${size.height}`}>
        {drawing.lines.map((l, i) => {
          const [a, b] = [to(l.from), to(l.to)];
          return (
            <Line
              key={i}
              x1={a.x}
              y1={a.y}
              x2={b.x}
              y2={b.y}
              stroke={INK}
              strokeWidth={{ board: 2.6, vehicle: 1.4, line: 0.6 }[l.layer]}
              strokeDasharray={l.layer === "line" ? "5 3" : undefined}
            />
          );
        })}
        {drawing.readings.map((r) => {
          const [a, b] = [to(r.from), to(r.to)];
          return (
            <Line
              key={r.id}
              x1={a.x}
              y1={a.y}
              x2={b.x}
              y2={b.y}
              stroke={INK}
              strokeWidth={0.5}
              strokeDasharray="1.5 1.5"
            />
          );
        })}
        {drawing.readings.map((r, i) => {
          const [a, b] = [to(r.from), to(r.to)];
          const f = PLACES[i % PLACES.length]!;
          const at = { x: a.x + f * (b.x - a.x), y: a.y + f * (b.y - a.y) };
          const number = String(numbers.get(r.id) ?? "");
          const half = 2.4 + 2.4 * number.length;
          return [
            <Rect
              key={`${r.id}-box`}
              x={at.x - half}
              y={at.y - 5}
              width={2 * half}
              height={10}
              fill="#ffffff"
              stroke={INK}
              strokeWidth={0.5}
            />,
            <SvgWords
              key={`${r.id}-number`}
              x={at.x - 2.1 * number.length}
              y={at.y + 2.6}
              size={7}
              words={number}
            />,
          ];
        })}
      </Svg>
      <Text style={[styles.soft, { fontSize: 7 }]}>
        {`Scale 1 : ${scale} when printed at full size; vehicle nose to the right, vehicle left up. Heavy: vehicle and target. Dotted: the readings that count in the plan, by their number below.`}
      </Text>
    </View>
  );
}

import { project, type Setting, type Turn } from "@/core/camera";

const SIZE = { width: 760, height: 300 };
/**
 * The picture's own lens: wide enough for the lane at the bonnet, long enough for a hundred metres.
 */
const LENS = { fx: 900, fy: 900, cx: SIZE.width / 2, cy: 96, lens: { kind: "pinhole" } } as const;
const LANE_HALF_MM = 1750;
const DISTANCES = [6, 7, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60, 80, 100, 140].map((m) => m * 1000);

type P = [number, number];

/** A place of the road ahead and to the left of the camera, in the picture. */
const seen = (heightMm: number, ahead: number, left: number): P =>
  project(LENS, [-left, heightMm, ahead]);

/**
 * Where a camera with this idea of itself takes a place of the road to be: carried into the
 * vehicle, down to the road.
 */
function believed(heightMm: number, t: Turn, ahead: number, left: number): [number, number] | null {
  const [cr, sr, cp, sp, cy, sy] = [
    Math.cos(t.roll),
    Math.sin(t.roll),
    Math.cos(t.pitch),
    Math.sin(t.pitch),
    Math.cos(t.yaw),
    Math.sin(t.yaw),
  ];
  const up = -heightMm;
  const [y1, z1] = [cr * left - sr * up, sr * left + cr * up];
  const [x2, z2] = [cp * ahead + sp * z1, -sp * ahead + cp * z1];
  const [x3, y3] = [cy * x2 - sy * y1, sy * x2 + cy * y1];
  if (z2 >= -1e-3) return null; // at or above the horizon: nowhere on the road
  const k = up / z2;
  return [x3 * k, y3 * k];
}

const path = (points: (P | null)[]): string => {
  const there = points.filter(
    (p): p is P => p !== null && Number.isFinite(p[0]) && Number.isFinite(p[1]),
  );
  return there.map(([u, v], i) => `${i === 0 ? "M" : "L"}${u.toFixed(1)} ${v.toFixed(1)}`).join("");
};

/**
 * The road from the camera's place, by the real projection: the lane where it is, and where the
 * camera would believe it, with the band its uncertainty leaves.
 */
export function RoadPicture({
  setting,
  turn,
  band,
  times,
}: {
  setting: Setting;
  turn: Turn;
  band: [Turn, Turn];
  times: number;
}) {
  const h = setting.camera.zMm;
  const scaled = (t: Turn): Turn => ({ yaw: t.yaw * times, pitch: t.pitch, roll: t.roll * times });
  const line = (side: number, t: Turn | null): (P | null)[] =>
    DISTANCES.map((d) => {
      if (!t) return seen(h, d, side * LANE_HALF_MM);
      const b = believed(h, scaled(t), d, side * LANE_HALF_MM);
      return b && b[0] > 4000 ? seen(h, b[0], b[1]) : null;
    });
  const horizon = LENS.cy;
  return (
    <svg
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      role="img"
      aria-label="The road from the camera: the lane where it is, and where the camera would believe it"
      className="w-full border border-hairline bg-paper"
    >
      <rect
        x={0}
        y={horizon}
        width={SIZE.width}
        height={SIZE.height - horizon}
        className="fill-wash"
      />
      <line
        x1={0}
        x2={SIZE.width}
        y1={horizon}
        y2={horizon}
        className="stroke-chalk"
        strokeWidth={1.5}
      />
      {[30, 60, 100].map((m) => {
        const [u, v] = seen(h, m * 1000, -5200);
        return (
          <g key={m}>
            <line
              x1={LENS.cx - (u - LENS.cx)}
              x2={u}
              y1={v}
              y2={v}
              className="stroke-chalk"
              strokeDasharray="3 4"
            />
            <text
              x={m === 60 ? 2 * LENS.cx - u - 6 : u + 6}
              y={v + 5}
              textAnchor={m === 60 ? "end" : "start"}
              className="figure fill-soft text-[13px]"
            >{`${m} m`}</text>
          </g>
        );
      })}
      {[1, -1].map((side) => (
        <path
          key={`b${side}`}
          d={`${path(line(side, band[0]))}${path([...line(side, band[1])].reverse()).replace("M", "L")}Z`}
          className="fill-act"
          opacity={0.18}
        />
      ))}
      {[1, -1].map((side) => (
        <path
          key={`t${side}`}
          d={path(line(side, null))}
          fill="none"
          className="stroke-ink"
          strokeWidth={3.5}
        />
      ))}
      {[1, -1].map((side) => (
        <path
          key={`c${side}`}
          d={path(line(side, turn))}
          fill="none"
          className="stroke-act"
          strokeWidth={3}
          strokeDasharray="10 6"
        />
      ))}
    </svg>
  );
}

import { standsAt, standSpots } from "./stand-spots";
import { fitFloor, type Floor, type FloorSpot } from "@/core/floor";
import type { BoardSide, Measure } from "@/core/sheet";
import { judgeAlignment } from "./alignment";
import type { Found, Judgement } from "./judgement";
import { bayFloorSigma } from "./bay-floor";
import { formatNumber, formatQuantity, radToDeg } from "@/core/units";
import {
  archPlace,
  CORNER_NAMES,
  readTyre,
  CORNERS,
  fitStance,
  type Corner,
  type Stance,
  type Vehicle,
} from "@/core/vehicle";

type Values = Readonly<Record<string, number>>;

/**
 * A rule on the floor read through a line laser, and an arch height read with a tape: standard
 * uncertainties, mm.
 */
const FLOOR_SIGMA_MM = 0.8;
const ARCH_SIGMA_MM = 1.5;
/** How the body stands by its arches. @param values measured heights by corner, mm */
export const stanceFrom = (v: Vehicle, values: Values): Stance =>
  fitStance(v, values as Record<Corner, number>, v.archMm, ARCH_SIGMA_MM);

/** Fuel weighs about 0.75 kg a litre. */
const FUEL_KG_PER_LITRE = 0.75;

/** What the placard wants of a corner, kPa. */
export const placardOf = (v: Vehicle, load: "half" | "full", c: Corner): number =>
  v.placardKPa[load][c[0] === "F" ? "front" : "rear"];

/** What is driven by electricity alone has nothing to fill. */
const NO_TANK: Judgement = { ok: true, headline: "no tank: nothing to fill", lines: [] };

/** The fields an item cannot be judged without, by id. */
function neededFor(measure: Measure, v: Vehicle): readonly string[] {
  switch (measure.kind) {
    case "pressures":
    case "tyres":
    case "arches":
      return CORNERS;
    case "floor":
      return [
        ...CORNERS,
        "stand",
        ...(measure.stands ?? []).slice(1).map((side) => standSpots(side)[0]![0]),
      ];
    case "clear-zone":
      return ["ahead", "left", "right"];
    case "fuel":
      return v.tankLitres === 0 ? [] : ["share"];
    case "steering":
      return ["deg"];
    case "alignment":
      return ["left", "right"];
    case "seams":
    case "camera-places":
    case "articulation":
    case "battery":
    case "scan":
    case "rescan":
    case "road":
    case "dash":
    case "self-test":
      return [];
  }
}

/**
 * Judges measured values against the sheet's limits and the vehicle's own figures.
 *
 * @param found what was found when it was written, for what is judged apart
 */
export function judgeMeasure(
  measure: Measure,
  values: Values,
  v: Vehicle,
  found?: Found,
): Judgement {
  const missing = neededFor(measure, v).filter((id) => values[id] === undefined);
  if (missing.length > 0)
    return { ok: null, headline: `${missing.length} still to read`, lines: [] };
  switch (measure.kind) {
    case "pressures":
      return judgePressures(measure, values, v);
    case "tyres":
      return judgeTyres(measure, values, v);
    case "clear-zone": {
      const lines = (
        [
          ["ahead", measure.aheadMm],
          ["left", measure.sideMm],
          ["right", measure.sideMm],
        ] as const
      ).map(([id, wanted]) => ({
        name: `free ${id}`,
        value: formatQuantity(values[id]!, "mm"),
        wanted: `at least ${formatQuantity(wanted, "mm")}`,
        ok: values[id]! >= wanted,
      }));
      const bad = lines.find((l) => !l.ok);
      return {
        ok: !bad,
        headline: bad ? `${bad.name}: only ${bad.value}` : "room enough on every side",
        lines,
      };
    }
    case "arches":
      return judgeArches(measure, values, v);
    case "floor":
      return judgeFloor(measure, values, v);
    case "fuel": {
      if (v.tankLitres === 0) return NO_TANK;
      const share = values.share! / 10;
      const lacks = Math.max(0, measure.minShare - share) * v.tankLitres;
      const ok = share >= measure.minShare;
      const value = `${formatNumber(share * 100)} %`;
      return {
        ok,
        headline: ok
          ? `${value} full`
          : `${formatNumber(lacks)} litres, ${formatNumber(lacks * FUEL_KG_PER_LITRE)} kg too little`,
        lines: [
          { name: "fuel", value, wanted: `at least ${formatNumber(measure.minShare * 100)} %`, ok },
        ],
      };
    }
    case "steering": {
      const deg = radToDeg(values.deg!);
      const ok = Math.abs(deg) <= measure.maxDeg;
      return {
        ok,
        headline: ok ? "straight" : `turn the wheel back ${formatNumber(Math.abs(deg), 1)}°`,
        lines: [
          {
            name: "steering angle",
            value: `${formatNumber(deg, 1)}°`,
            wanted: `within ± ${formatNumber(measure.maxDeg, 1)}°`,
            ok,
          },
        ],
      };
    }
    case "alignment":
      return judgeAlignment(
        {
          left: values.left!,
          right: values.right!,
          ...(values.sigma === undefined ? {} : { sigma: values.sigma }),
        },
        v,
      );
    case "seams":
    case "camera-places":
    case "articulation":
      return found ? { ...found, lines: [] } : { ok: null, headline: "not judged yet", lines: [] };
    case "battery":
    case "scan":
    case "rescan":
    case "road":
    case "dash":
    case "self-test":
      return { ok: null, headline: "read by the scan tool", lines: [] };
  }
}

function judgePressures(
  m: Extract<Measure, { kind: "pressures" }>,
  values: Values,
  v: Vehicle,
): Judgement {
  const lines = CORNERS.map((c) => {
    const [is, wanted] = [values[c]!, placardOf(v, m.load, c)];
    return {
      name: CORNER_NAMES[c],
      value: formatQuantity(is, "kPa"),
      wanted: formatQuantity(wanted, "kPa"),
      ok: Math.abs(is - wanted) <= m.toleranceKPa,
      off: is - wanted,
    };
  });
  const worst = lines.reduce((a, b) => (Math.abs(b.off) > Math.abs(a.off) ? b : a));
  const ok = lines.every((l) => l.ok);
  return {
    ok,
    headline: ok
      ? "all at placard"
      : `${worst.name}: ${formatQuantity(Math.abs(worst.off), "kPa")} too ${worst.off > 0 ? "much" : "little"}`,
    lines,
  };
}

/**
 * Sizes are judged by overall diameter: a smaller tyre lowers its corner and turns faster than its
 * fellow.
 */
function judgeTyres(m: Extract<Measure, { kind: "tyres" }>, values: Values, v: Vehicle): Judgement {
  const percent = (a: number, b: number): number => (100 * (a - b)) / b;
  const axle = (name: string, l: Corner, r: Corner) => {
    const off = percent(values[l]!, values[r]!);
    return {
      name: `across the ${name} axle`,
      value: `${formatNumber(Math.abs(off), 1)} %`,
      wanted: `at most ${formatNumber(m.axlePercent, 1)} %`,
      ok: Math.abs(off) <= m.axlePercent,
    };
  };
  const nominal = CORNERS.map((c) => {
    const own = readTyre(c[0] === "F" ? v.tyres.front : v.tyres.rear);
    const off = own ? percent(values[c]!, own.diameterMm) : 0;
    return {
      name: CORNER_NAMES[c],
      value: `${formatQuantity(values[c]!, "mm")} over all`,
      wanted: own
        ? `${formatQuantity(own.diameterMm, "mm")} ± ${formatNumber(m.nominalPercent, 1)} %`
        : "the maker’s size",
      ok: Math.abs(off) <= m.nominalPercent,
    };
  });
  const lines = [axle("front", "FL", "FR"), axle("rear", "RL", "RR"), ...nominal];
  const bad = lines.find((l) => !l.ok);
  return {
    ok: !bad,
    headline: bad ? `${bad.name}: ${bad.value}` : "one size on each axle, the maker’s",
    lines,
  };
}

function judgeArches(
  m: Extract<Measure, { kind: "arches" }>,
  values: Values,
  v: Vehicle,
): Judgement {
  const s = stanceFrom(v, values);
  const rise = s.cameraHeightMm.value - v.camera.zMm;
  const [pitch, roll] = [radToDeg(s.pitchRad.value), radToDeg(s.rollRad.value)];
  const warped = Math.abs(s.warpMm.value) > 3.29 * s.warpMm.sigma;
  const lines = [
    {
      name: "camera height",
      value: formatQuantity(s.cameraHeightMm.value, "mm"),
      wanted: `${formatQuantity(v.camera.zMm, "mm")} ± ${formatNumber(m.cameraHeightMm)}`,
      ok: Math.abs(rise) <= m.cameraHeightMm,
    },
    {
      name: "body pitch, nose up +",
      value: `${formatNumber(pitch, 2)}°`,
      wanted: `± ${formatNumber(m.pitchDeg, 2)}°`,
      ok: Math.abs(pitch) <= m.pitchDeg,
    },
    {
      name: "body roll, left up +",
      value: `${formatNumber(roll, 2)}°`,
      wanted: `± ${formatNumber(m.rollDeg, 2)}°`,
      ok: Math.abs(roll) <= m.rollDeg,
    },
    {
      name: "one corner off",
      value: formatQuantity(Math.abs(s.warpMm.value), "mm"),
      wanted: "none",
      ok: !warped,
    },
  ];
  const bad = lines.find((l) => !l.ok);
  const heave = `heave ${formatNumber(s.heaveMm.value)} mm, pitch ${formatNumber(pitch, 2)}°, roll ${formatNumber(roll, 2)}°`;
  return { ok: !bad, headline: bad ? `${bad.name}: ${bad.value}` : heave, lines };
}

/**
 * A rule on the floor reads larger where the floor is lower: its negative is the floor's height.
 */
const spot = (
  id: string,
  xMm: number,
  yMm: number,
  ruleMm: number,
  sigmaMm: number,
): FloorSpot => ({
  id,
  xMm,
  yMm,
  heightMm: -ruleMm,
  sigmaMm,
});

/** Where a stand stands and looks, vehicle axes: a board ahead looks back, at half a turn. */
export type StandPlace = { xMm: number; yMm: number; headingRad: number };

/** A spot on the floor under the beam, so far to the right of whoever looks out of it at the car. */
const beside = ({ xMm, yMm, headingRad }: StandPlace, mm: number): [number, number] => [
  xMm + Math.sin(headingRad) * mm,
  yMm - Math.cos(headingRad) * mm,
];

/**
 * The floor from the rule readings of an item, with the stand's spot where the sheet puts the
 * board.
 *
 * @param days age of a kept floor the readings were taken from; null when they were read on this
 *   job
 * @param side of the vehicle where the stand is; null at the first board of a job
 */
export function floorOf(
  values: Values,
  v: Vehicle,
  stand: StandPlace,
  days: number | null = null,
  side: BoardSide | null = null,
): Floor | null {
  const sigma = days === null ? FLOOR_SIGMA_MM : bayFloorSigma(FLOOR_SIGMA_MM, days);
  if (CORNERS.some((c) => values[c] === undefined)) return null;
  const tyres = CORNERS.map((c) => {
    const p = archPlace(v, c);
    return spot(c, p.xMm, p.yMm, values[c]!, sigma);
  });
  return fitFloor(
    tyres,
    standSpots(side).flatMap(([id, y]) =>
      values[id] === undefined ? [] : [spot(id, ...beside(stand, y), values[id], sigma)],
    ),
  );
}

/**
 * About where a stand of a side is. How far from the car hardly matters for slope and twist; the
 * set-out asks again with the sheet's own.
 */
const usually = (side: BoardSide, v: Vehicle): StandPlace =>
  ({
    ahead: { xMm: v.wheelbaseMm + 2800, yMm: 0, headingRad: Math.PI },
    behind: { xMm: -2800, yMm: 0, headingRad: 0 },
    left: { xMm: v.wheelbaseMm / 2, yMm: 2500, headingRad: -Math.PI / 2 },
    right: { xMm: v.wheelbaseMm / 2, yMm: -2500, headingRad: Math.PI / 2 },
  })[side];

function judgeFloor(m: Extract<Measure, { kind: "floor" }>, values: Values, v: Vehicle): Judgement {
  const [first = "ahead", ...elsewhere] = m.stands ?? [];
  const f = floorOf(values, v, usually(first, v))!;
  const slope = (s: { value: number }): number => radToDeg(s.value);
  const lines = [
    {
      name: "slope ahead, rising +",
      value: `${formatNumber(slope(f.slopeAhead), 2)}°`,
      wanted: `± ${formatNumber(m.slopeDeg, 2)}°`,
      ok: Math.abs(slope(f.slopeAhead)) <= m.slopeDeg,
    },
    {
      name: "slope across, left up +",
      value: `${formatNumber(slope(f.slopeLeft), 2)}°`,
      wanted: `± ${formatNumber(m.slopeDeg, 2)}°`,
      ok: Math.abs(slope(f.slopeLeft)) <= m.slopeDeg,
    },
    {
      name: "twist",
      value: formatQuantity(f.twist?.value ?? 0, "mm", 1),
      wanted: `± ${formatNumber(m.twistMm)} mm`,
      ok: Math.abs(f.twist?.value ?? 0) <= m.twistMm,
    },
  ];
  const bad = lines.find((l) => !l.ok);
  const step = ({ correction }: Floor): string =>
    `${formatNumber(Math.abs(correction!.value), 1)} mm ${correction!.value >= 0 ? "higher" : "lower"}`;
  const others = elsewhere.map(
    (side) => `, ${standsAt(side)} ${step(floorOf(values, v, usually(side, v), null, side)!)}`,
  );
  const words = `floor at the stand ${step(f)}${others.join("")} than the car’s plane`;
  return { ok: !bad, headline: bad ? `${bad.name}: ${bad.value}` : words, lines };
}

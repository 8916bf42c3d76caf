import { fitFloor, type Floor, type FloorSpot } from "@/core/floor";
import type { Measure } from "@/core/sheet";
import { judgeAlignment } from "./alignment";
import type { Field } from "./field";
import type { Judgement } from "./judgement";
import { judgeSeams, seamFields } from "./seams";
import { bayFloorSigma } from "./bay-floor";
import { degToRad, formatNumber, formatQuantity, radToDeg, type Quantity } from "@/core/units";
import {
  archPlace,
  CORNER_NAMES,
  readTyre,
  CORNERS,
  fitStance,
  type Corner,
  type Vehicle,
} from "@/core/vehicle";

/**
 * A rule on the floor read through a line laser, and an arch height read with a tape: standard
 * uncertainties, mm.
 */
const FLOOR_SIGMA_MM = 0.8;
const ARCH_SIGMA_MM = 1.5;
/** Fuel weighs about 0.75 kg a litre. */
const FUEL_KG_PER_LITRE = 0.75;

const plain = (name: string, min: number, max: number): Quantity => ({
  name,
  dimension: "length",
  min,
  max,
});

/** What has to be read for an item, in walking order round the car. */
export function fieldsFor(measure: Measure, v: Vehicle): Field[] {
  const corners = (make: (c: Corner) => Omit<Field, "id" | "name" | "at">): Field[] =>
    CORNERS.map((c) => ({ id: c, name: CORNER_NAMES[c], at: archPlace(v, c), ...make(c) }));
  switch (measure.kind) {
    case "pressures":
      return corners((c) => ({
        quantity: {
          name: `the ${CORNER_NAMES[c]} tyre pressure`,
          dimension: "pressure",
          min: 50,
          max: 1100,
          expected: placardOf(v, measure.load, c),
        },
        unit: "kPa",
      }));
    case "tyres":
      return corners((c) => ({
        quantity: { ...plain(`the ${CORNER_NAMES[c]} tyre size`, 350, 1300) },
        unit: "tyre",
        markings: markingsFor(v, c),
      }));
    case "clear-zone":
      return [
        {
          id: "ahead",
          name: "free ahead of the bumper",
          at: null,
          quantity: plain("the free floor ahead", 0, 60_000),
          unit: "mm",
        },
        {
          id: "left",
          name: "free to vehicle left",
          at: null,
          quantity: plain("the free floor to the left", 0, 30_000),
          unit: "mm",
        },
        {
          id: "right",
          name: "free to vehicle right",
          at: null,
          quantity: plain("the free floor to the right", 0, 30_000),
          unit: "mm",
        },
      ];
    case "arches":
      return corners((c) => ({
        quantity: {
          ...plain(`the ${CORNER_NAMES[c]} arch height`, 300, 1700),
          expected: v.archMm[c],
        },
        unit: "mm",
      }));
    case "floor": {
      const reading = (name: string): Pick<Field, "quantity" | "unit"> => ({
        quantity: plain(`the rule reading ${name}`, -50, 2500),
        unit: "mm",
      });
      return [
        ...corners((c) => reading(`at the ${CORNER_NAMES[c]} tyre`)),
        { id: "stand", name: "stand, left foot", at: null, ...reading("at the stand") },
        {
          id: "stand-2",
          name: "stand, right foot",
          at: null,
          optional: true,
          ...reading("at the stand"),
        },
      ];
    }
    case "fuel":
      return [
        {
          id: "share",
          name: "fuel gauge",
          at: null,
          ...(v.tankLitres === 0 ? { optional: true } : {}),
          quantity: { name: "the fuel gauge in tenths", dimension: "count", min: 0, max: 10 },
          unit: "share",
        },
      ];
    case "steering":
      return [
        {
          id: "deg",
          name: "steering angle",
          at: null,
          quantity: {
            name: "the steering angle",
            dimension: "angle",
            min: degToRad(-720),
            max: degToRad(720),
          },
          unit: "deg",
        },
      ];
    case "alignment": {
      const toe = (id: "left" | "right"): Field => ({
        id,
        name: `rear ${id} toe, in +`,
        at: null,
        quantity: {
          name: `the rear ${id} toe`,
          dimension: "angle",
          min: degToRad(-3),
          max: degToRad(3),
        },
        unit: "deg",
        decimals: 2,
      });
      return [
        toe("left"),
        toe("right"),
        {
          id: "sigma",
          name: "known to ±, if said",
          at: null,
          optional: true,
          quantity: {
            name: "what the toe is known to",
            dimension: "angle",
            min: degToRad(0.005),
            max: degToRad(1),
          },
          unit: "deg",
          decimals: 2,
        },
      ];
    }
    case "seams":
      return seamFields();
    case "battery":
    case "scan":
      return [];
  }
}

const placardOf = (v: Vehicle, load: "half" | "full", c: Corner): number =>
  v.placardKPa[load][c[0] === "F" ? "front" : "rear"];

/**
 * The maker's marking at a corner, and one a shop meets: the same rim with the next lower section.
 */
function markingsFor(v: Vehicle, c: Corner): string[] {
  const own = c[0] === "F" ? v.tyres.front : v.tyres.rear;
  const t = readTyre(own);
  return t ? [own, `${t.widthMm}/${Math.round(t.aspect * 100) - 5} R${t.rimIn}`] : [own];
}

/** What is driven by electricity alone has nothing to fill. */
const NO_TANK: Judgement = { ok: true, headline: "no tank: nothing to fill", lines: [] };

type Values = Readonly<Record<string, number>>;

/** Judges measured values against the sheet's limits and the vehicle's own figures. */
export function judgeMeasure(measure: Measure, values: Values, v: Vehicle): Judgement {
  const missing = fieldsFor(measure, v).filter((f) => !f.optional && values[f.id] === undefined);
  if (missing.length > 0)
    return {
      ok: null,
      headline: `${missing.length} still to read: ${missing[0]!.name}`,
      lines: [],
    };
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
      return judgeSeams(measure.limitMm, values);
    case "battery":
    case "scan":
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
  const s = fitStance(v, values as Record<Corner, number>, v.archMm, ARCH_SIGMA_MM);
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

/**
 * The floor from the rule readings of an item, with the stand's spot where the sheet puts the
 * board.
 *
 * @param days age of a kept floor the readings were taken from; null when they were read on this
 *   job
 */
export function floorOf(
  values: Values,
  v: Vehicle,
  standXMm: number,
  days: number | null = null,
): Floor | null {
  const sigma = days === null ? FLOOR_SIGMA_MM : bayFloorSigma(FLOOR_SIGMA_MM, days);
  if (CORNERS.some((c) => values[c] === undefined)) return null;
  const tyres = CORNERS.map((c) => {
    const p = archPlace(v, c);
    return spot(c, p.xMm, p.yMm, values[c]!, sigma);
  });
  const feet = [
    ["stand", 350],
    ["stand-2", -350],
  ] as const;
  return fitFloor(
    tyres,
    feet.flatMap(([id, y]) =>
      values[id] === undefined ? [] : [spot(id, standXMm, y, values[id], sigma)],
    ),
  );
}

function judgeFloor(m: Extract<Measure, { kind: "floor" }>, values: Values, v: Vehicle): Judgement {
  // The stand's distance hardly matters for slope and twist; the set-out asks again with the
  // sheet's own.
  const f = floorOf(values, v, v.wheelbaseMm + 2800)!;
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
  const step = f.correction!;
  const bad = lines.find((l) => !l.ok);
  const words = `floor at the stand ${formatNumber(Math.abs(step.value), 1)} mm ${step.value >= 0 ? "higher" : "lower"} than the car’s plane`;
  return { ok: !bad, headline: bad ? `${bad.name}: ${bad.value}` : words, lines };
}

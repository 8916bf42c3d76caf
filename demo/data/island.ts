import {
  junctionFields,
  roadFields,
  type Junction,
  type Road,
  type RoadPlace,
} from "@/core/drive/road";
import { randomFrom, type Random } from "@/core/math/random";

/**
 * The roads of the made-up island: a harbour town, a ring about it, a causeway to an islet, lanes over
 * the hills and along the coast. Every place, name and figure is invented; the same seed makes the same
 * island.
 */
const CENTRE = { lonDeg: 1.9, latDeg: 56.4 };
const M_PER_DEG = 111_195;
type Spot = [eastM: number, northM: number];

/** The shop stands on the quay, in the town. */
export const SHOP_PLACE: RoadPlace = placeAt([130, 0]);

/** Higher to the north, with a few tops. */
function heightAt([e, n]: Spot): number {
  const top = (ce: number, cn: number, high: number, wide: number): number =>
    high * Math.exp(-((e - ce) ** 2 + (n - cn) ** 2) / (2 * wide * wide));
  return 4 + top(-900, 5400, 190, 1500) + top(2400, 6100, 130, 1100) + top(-4300, 1800, 80, 1300);
}

function placeAt(spot: Spot): RoadPlace {
  const lat = CENTRE.latDeg + spot[1] / M_PER_DEG;
  const lon = CENTRE.lonDeg + spot[0] / (M_PER_DEG * Math.cos((CENTRE.latDeg * Math.PI) / 180));
  return [
    Number(lon.toFixed(6)),
    Number(lat.toFixed(6)),
    Number(Math.max(1, heightAt(spot)).toFixed(1)),
  ];
}

/** Into town in the morning, out in the afternoon; the rest of the day between. */
const day = (busy: number): number[] =>
  Array.from({ length: 24 }, (_, h) => {
    const peak = (at: number, wide: number): number =>
      Math.exp(-((h + 0.5 - at) ** 2) / (2 * wide ** 2));
    const level = 0.08 + 0.32 * peak(13, 4) + 0.42 * peak(8.2, 0.9) + 0.5 * peak(17.1, 1.1);
    return Number(Math.min(0.92, busy * level).toFixed(3));
  });

type Kind = {
  limitKmh: number;
  lanes?: number;
  surface?: Road["surface"];
  busy: number;
  left: [Road["along"]["left"]["kind"], number];
  right: [Road["along"]["left"]["kind"], number];
};
const KINDS = {
  street: { limitKmh: 30, busy: 0.7, left: ["none", 0], right: ["none", 0] },
  setts: { limitKmh: 30, busy: 0.5, surface: "setts", left: ["none", 0], right: ["none", 0] },
  main: { limitKmh: 50, busy: 1.1, left: ["solid", 0.7], right: ["broken", 0.8] },
  ring: { limitKmh: 80, busy: 0.9, left: ["solid", 0.97], right: ["broken", 0.95] },
  radial: { limitKmh: 60, busy: 1, left: ["solid", 0.85], right: ["broken", 0.88] },
  causeway: { limitKmh: 100, busy: 0.4, left: ["solid", 0.98], right: ["broken", 0.97] },
  coast: { limitKmh: 80, busy: 0.5, left: ["solid", 0.86], right: ["broken", 0.9] },
  lane: { limitKmh: 60, busy: 0.2, left: ["none", 0], right: ["none", 0] },
  hill: { limitKmh: 70, busy: 0.3, left: ["solid", 0.6], right: ["broken", 0.8] },
} satisfies Record<string, Kind>;

const STREETS = [
  "Ropewalk",
  "Cooper’s Row",
  "Gull Street",
  "Tarring Lane",
  "Net Loft Street",
  "Saltpan Street",
  "Chandler’s Way",
  "Lantern Street",
  "Kelp Street",
  "Anchor Row",
  "Bollard Street",
  "Mizzen Street",
];

/** Collects roads and junctions; a road ends where another begins. */
class Island {
  readonly roads: Road[] = [];
  readonly junctions = new Map<string, Junction>();
  constructor(private readonly random: Random) {}

  road(name: string, kind: Kind, spots: readonly Spot[]): void {
    const line = ([k, seen]: Kind["left"]): object => ({
      kind: k,
      // No two roads are worn alike.
      seen:
        k === "none"
          ? 0
          : Number(Math.min(0.99, Math.max(0.2, seen + (this.random() - 0.5) * 0.12)).toFixed(2)),
      on: "2026-10-12",
    });
    const lines = (): object => ({ left: line(kind.left), right: line(kind.right) });
    const fields = roadFields.parse({
      name,
      limitKmh: kind.limitKmh,
      lanes: kind.lanes ?? 1,
      surface: kind.surface ?? "asphalt",
      along: lines(),
      back: lines(),
      traffic: day(kind.busy * (0.85 + this.random() * 0.3)),
    });
    const id = `HQ-R${String(this.roads.length + 1).padStart(4, "0")}`;
    this.roads.push({ ...fields, id, points: spots.map(placeAt) });
  }

  junction(spot: Spot, fields: object): void {
    const at = placeAt(spot);
    this.junctions.set(at.join(), { ...junctionFields.parse(fields), at });
  }

  /** A way through spots, each a junction, with a bend drawn between two of them. */
  chain(name: string, kind: Kind, spots: readonly Spot[], bend = 0): void {
    spots.slice(1).forEach((to, i) => {
      const from = spots[i]!;
      const swing = bend * (i % 2 === 0 ? 1 : -1) * (0.6 + this.random() * 0.8);
      this.road(`${name} ${i + 1}`, kind, curve(from, to, swing));
    });
  }
}

/** From one spot to another by an arc that goes so far aside, in pieces of about 40 m. */
function curve(a: Spot, b: Spot, aside: number): Spot[] {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const steps = Math.max(1, Math.round(length / 40));
  const [ue, un] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  return Array.from({ length: steps + 1 }, (_, i): Spot => {
    const t = i / steps;
    const off = aside * 4 * t * (1 - t);
    return [a[0] + (b[0] - a[0]) * t - un * off, a[1] + (b[1] - a[1]) * t + ue * off];
  });
}

const [COLUMNS, ROWS, BLOCK_M] = [17, 13, 130];
const RING_M = 3200;
const polar = (m: number, deg: number): Spot => [
  m * Math.sin((deg * Math.PI) / 180),
  m * Math.cos((deg * Math.PI) / 180),
];

/** The town: streets in blocks, every fourth a main one; signals where two main ones cross. */
function town(island: Island, random: Random): Spot[][] {
  const grid = Array.from({ length: COLUMNS }, (_, c) =>
    Array.from({ length: ROWS }, (_, r): Spot => {
      const still = c % 4 === 0 && r % 4 === 0;
      const sway = (): number => (still ? 0 : (random() - 0.5) * 30);
      return [(c - 7) * BLOCK_M + sway(), (r - 6) * BLOCK_M + sway()];
    }),
  );
  const kindOf = (main: boolean): Kind =>
    main ? KINDS.main : random() < 0.12 ? KINDS.setts : KINDS.street;
  for (let c = 0; c < COLUMNS; c++)
    for (let r = 0; r < ROWS; r++) {
      const here = grid[c]![r]!;
      const [right, up] = [grid[c + 1]?.[r], grid[c]![r + 1]];
      if (right)
        island.road(`${STREETS[r % STREETS.length]} ${c + 1}`, kindOf(r % 4 === 0), [here, right]);
      if (up) island.road(`Stair ${c + 1}, ${r + 1}`, kindOf(c % 4 === 0), [here, up]);
      const [mainC, mainR] = [c % 4 === 0, r % 4 === 0];
      if (mainC && mainR) island.junction(here, { control: "signals", redShare: 0.45, redS: 35 });
      else island.junction(here, { control: mainC || mainR ? "give-way" : "none" });
    }
  return grid;
}

/** The island, always the same. */
export function island(): { roads: Road[]; junctions: Junction[] } {
  const random = randomFrom(20261103);
  const made = new Island(random);
  const grid = town(made, random);
  const RING = 40;
  const ring = Array.from({ length: RING }, (_, i) => polar(RING_M, (360 * i) / RING));
  ring.forEach((from, i) => {
    const to = ring[(i + 1) % RING]!;
    const steps = 12;
    const arc = Array.from({ length: steps + 1 }, (_, k) =>
      k === 0 ? from : k === steps ? to : polar(RING_M, (360 * (i + k / steps)) / RING),
    );
    made.road(`Ring ${i + 1}`, KINDS.ring, arc);
    made.junction(from, i % 5 === 0 ? { control: "roundabout", turnRound: true } : {});
  });
  // From the town's gates to the ring.
  const gates: [Spot, number][] = [
    [grid[8]!.at(-1)!, 0],
    [grid.at(-1)!.at(-1)!, 5],
    [grid.at(-1)![4]!, 10],
    [grid.at(-1)![0]!, 15],
    [grid[8]![0]!, 20],
    [grid[0]![0]!, 25],
    [grid[0]![4]!, 30],
    [grid[0]!.at(-1)!, 35],
  ];
  gates.forEach(([gate, at], g) => {
    const to = ring[at]!;
    const spots = Array.from({ length: 6 }, (_, i): Spot => [
      gate[0] + ((to[0] - gate[0]) * i) / 5,
      gate[1] + ((to[1] - gate[1]) * i) / 5,
    ]);
    made.chain(
      `${["North", "Hill", "East", "Quay", "South", "Mole", "West", "Moor"][g]} Road`,
      KINDS.radial,
      spots,
      12,
    );
    spots
      .slice(1, -1)
      .forEach((s, i) =>
        made.junction(s, i === 1 ? { control: "signals", redShare: 0.35, redS: 30 } : {}),
      );
  });
  // Over the water to the islet, and about it.
  const causeway = Array.from({ length: 13 }, (_, i): Spot => [RING_M + i * 420, i * 25]);
  made.chain("Causeway", KINDS.causeway, [ring[10]!, ...causeway.slice(1)], 0);
  const islet = causeway.at(-1)!;
  const about = Array.from({ length: 9 }, (_, i): Spot => {
    const [e, n] = polar(600, 270 + i * 40);
    return i === 0 || i === 9 ? islet : [islet[0] + 600 + e, islet[1] + n];
  });
  made.chain("Islet", KINDS.lane, [...about, islet], 20);
  made.junction(islet, { control: "roundabout", turnRound: true });
  // The coast, and the spokes out to it.
  const COAST = 60;
  const coast = Array.from({ length: COAST }, (_, i) => {
    const deg = (360 * i) / COAST;
    return polar(6400 + 700 * Math.sin((3 * deg * Math.PI) / 180) + (random() - 0.5) * 200, deg);
  });
  // The sea breaks in where the causeway leaves.
  const open = coast.filter((_, i) => i < 13 || i > 17);
  made.chain("Coast Road", KINDS.coast, [...open.slice(13), ...open.slice(0, 13)], 35);
  for (const [n, [from, to]] of (
    [
      [0, 0],
      [5, 7],
      [16, 24],
      [20, 30],
      [25, 37],
      [30, 45],
      [35, 52],
    ] as const
  ).entries()) {
    const [a, b] = [ring[from]!, coast[to]!];
    const spots = Array.from({ length: 9 }, (_, i): Spot => [
      a[0] + ((b[0] - a[0]) * i) / 8,
      a[1] + ((b[1] - a[1]) * i) / 8,
    ]);
    const hilly = n === 0 || n === 1 || n === 6;
    made.chain(
      hilly ? `Fell Road ${n + 1},` : `Lane ${n + 1},`,
      hilly ? KINDS.hill : KINDS.lane,
      spots,
      hilly ? 70 : 30,
    );
  }
  for (const i of [0, 13, 24, 37, 52])
    made.junction(coast[i]!, { control: "roundabout", turnRound: true });
  made.junction(grid[8]![6]!, { turnRound: true });
  return { roads: made.roads, junctions: [...made.junctions.values()] };
}

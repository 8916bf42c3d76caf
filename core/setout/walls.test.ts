import { describe, expect, it } from "vitest";
import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import { firstTarget } from "@/core/sheet";
import { baySchema } from "@/core/space/bay";
import { wallsAbout } from "@/core/space/walls-about";
import { INSTRUMENTS, STANDS } from "@/demo/data/kit";
import { SHEETS } from "@/demo/data/sheets";
import { VEHICLES } from "@/demo/data/vehicles";
import { act, openBay, parkIn, trueReading, type BenchWorld } from "@/devices/bench/world";
import { JOINT_95, offBy } from "@/tests/coverage";
import {
  DEFAULT_THRESHOLDS,
  readingSigma,
  schoolsFor,
  slotsFor,
  solveSetOut,
  spanOf,
  type SetOutEntry,
  type SetOutPlan,
} from ".";
import { inSchool } from "./schools";
import { markOut } from "./mark-out";

const hall = baySchema.parse({
  id: "hall",
  name: "Hall",
  outline: [
    [0, 0],
    [9600, 0],
    [9600, 5200],
    [0, 5200],
  ],
  doors: [
    [
      [0, 900],
      [0, 4400],
    ],
  ],
  wallsMm: 8,
});
/** Nose to the far wall, a hand's breadth askew. */
const POSE = { xMm: 1700, yMm: 2500, headingRad: 0.01 };
const vehicle = VEHICLES.find((v) => SHEETS[0]!.appliesTo.vehicles.includes(v.id))!;
const plan: SetOutPlan = {
  vehicle,
  target: firstTarget(SHEETS[0]!),
  stand: STANDS[0]!,
  instruments: INSTRUMENTS,
  rearToe: null,
  thresholds: DEFAULT_THRESHOLDS,
  school: "walls",
  bay: wallsAbout(hall, POSE),
};
const parked: SetOutEntry = { kind: "parked", id: "p", bay: plan.bay! };

/** Every reading of the way once, in a world that shares no geometry with it. */
function readAll(world: BenchWorld, seed: string, of = plan): SetOutEntry[] {
  const random = randomFrom(seedFrom(`${seed}/eye`));
  return slotsFor(of)
    .filter((s) =>
      s.observes.in === "plan" ? inSchool(of, s) : s.id === "tilt-pitch" || s.id === "tilt-roll",
    )
    .map((slot) => {
      const truth = trueReading(world, slot.id);
      const sigma = readingSigma(
        of.instruments.find((i) => i.kind === slot.instrument)!,
        slot,
        truth,
      );
      const shown = truth + sigma * gaussian(random);
      return { kind: "reading", id: slot.id, slotId: slot.id, shown, sigma };
    });
}
const worldOf = (seed: string): BenchWorld =>
  parkIn(openBay(seed, plan), { ...plan.bay!, bay: `${seed}/hall` }, seed);

describe("the walls of the bay as observations", () => {
  it("holds the true place of the board in its 95 per cent region in 93 to 97 per cent of 1,500 set-ups", () => {
    let held = 0;
    for (let n = 0; n < 1500; n++) {
      const world = worldOf(`walls-${n}`);
      const solved = solveSetOut(plan, [parked, ...readAll(world, `${n}`)]);
      if (offBy(world, solved) <= JOINT_95[3]!) held++;
    }
    expect(held / 1500).toBeGreaterThan(0.93);
    expect(held / 1500).toBeLessThan(0.97);
  });

  it("tells more of the twist than two tapes by themselves, as its mark-out foretells", () => {
    const { steps } = markOut(plan, "walls");
    const only = steps.filter((s) => s.slot.observes.in === "plan" && s.slot.wall);
    const readings = readAll(worldOf("worth"), "worth");
    const twist = (entries: SetOutEntry[]): number =>
      Math.sqrt(solveSetOut(plan, entries).aim!.covariance[2]![2]!);
    const tapes = readings.filter((e) => !("slotId" in e) || !e.slotId.startsWith("wall-"));
    const all = twist([parked, ...readings]);
    expect(only.length).toBeGreaterThanOrEqual(6);
    expect(all).toBeLessThan(0.8 * twist([parked, ...tapes]));
    expect(steps.at(-1)!.sigma.twistRad / all).toBeCloseTo(1, 1);
  });

  it("is another way only where somebody said where the vehicle stands", () => {
    const { bay: _, ...nowhere } = plan;
    expect(schoolsFor(plan)).toContain("walls");
    expect(schoolsFor(nowhere)).not.toContain("walls");
    expect(slotsFor(nowhere).some((s) => s.wall)).toBe(false);
    // What somebody read to a wall nobody knows of any more stays on the slip, and proves nothing.
    const readings = readAll(worldOf("gone"), "gone");
    const bare = { ...nowhere, school: "free" as const };
    expect(() => solveSetOut(bare, [parked, ...readings])).not.toThrow();
  });

  it("runs to no wall behind a pillar, and not through a door", () => {
    const at = (bay: unknown): string[] =>
      slotsFor({ ...plan, bay: wallsAbout(baySchema.parse(bay), POSE) }).flatMap((s) =>
        s.wall ? [s.id.split("@")[0]!] : [],
      );
    const pillar = {
      name: "pillar",
      outline: [
        [POSE.xMm - 300, 4300],
        [POSE.xMm + 300, 4300],
        [POSE.xMm + 300, 4700],
        [POSE.xMm - 300, 4700],
      ],
      toMm: 3000,
    };
    const all = ["wall-fl", "wall-fr", "wall-rl", "wall-rr"];
    expect(at(hall)).toEqual(expect.arrayContaining(all));
    const behind = at({ ...hall, obstacles: [pillar] });
    expect(behind).toEqual(expect.arrayContaining(all.filter((id) => id !== "wall-rl")));
    expect(behind).not.toContain("wall-rl");
    // A bar that hangs over the hub's height hides nothing.
    expect(at({ ...hall, obstacles: [{ ...pillar, fromMm: 1200 }] })).toContain("wall-rl");
    const door = [[POSE.xMm - 500, 5200] as const, [POSE.xMm + 500, 5200] as const];
    expect(at({ ...hall, doors: [door] })).not.toContain("wall-rl");
  });

  it("draws a reading from its hub straight to the wall", () => {
    const s = solveSetOut(plan, [parked, ...readAll(worldOf("drawn"), "drawn")]);
    const slot = s.slots.find((x) => x.id.startsWith("wall-rl@"))!;
    const [a, b] = spanOf(slot, s)!;
    const hub = s.adjustment!.points.find((p) => p.id === "hubRL")!;
    expect(Math.hypot(b.xMm - hub.xMm, b.yMm - hub.yMm)).toBeLessThan(20);
    expect(a.yMm - b.yMm).toBeGreaterThan(1000);
  });

  it("names a wall that was read wrong, and not the board", () => {
    let named = 0;
    for (let n = 0; n < 40; n++) {
      const readings = readAll(worldOf(`slip-${n}`), `slip-${n}`);
      const slip = readings.find((e) => e.id.startsWith("wall-behind-l"))!;
      const wrong = readings.map((e) =>
        e === slip && e.kind === "reading" ? { ...e, shown: e.shown + 100 } : e,
      );
      const { suspects } = solveSetOut(plan, [parked, ...wrong]);
      if (suspects.includes(slip.id)) named++;
    }
    expect(named).toBeGreaterThanOrEqual(36);
  });

  it("names all that was read to a wall that stands elsewhere than it is drawn", () => {
    const world = worldOf("redrawn");
    const [wall] = slotsFor(plan).flatMap((s) => (s.id.startsWith("wall-behind-l") ? s.wall! : []));
    const id = wall!.id.slice("hall.".length);
    const [a, b] = world.bay!.walls.get(id)!;
    const off = [a, b].map((p) => ({ ...p, x: p.x + 400 })) as unknown as readonly [
      typeof a,
      typeof b,
    ];
    const walls = new Map(world.bay!.walls).set(id, off);
    const { suspects } = solveSetOut(plan, [
      parked,
      ...readAll({ ...world, bay: { ...world.bay!, walls } }, "redrawn"),
    ]);
    expect(suspects.filter((x) => x.startsWith("wall-behind-"))).toHaveLength(2);
  });

  it("goes with the bay when the vehicle is moved: what was read before is in doubt and agrees", () => {
    const world = worldOf("moved");
    const first = readAll(world, "first");
    const moved = act(world, { id: "m", kind: "touch", touch: "moved-car" });
    const again = readAll(moved, "again").map((e) => ({ ...e, id: `${e.id}/2` }));
    const touch: SetOutEntry = { kind: "touch", id: "m", touch: "moved-car" };
    const s = solveSetOut(plan, [parked, ...first, touch, ...again]);
    const states = new Map(s.readings.map((r) => [r.id, r.state]));
    const hubs = first.filter((e) => /^wall-[fr][lr]@/.test(e.id));
    expect(hubs.length).toBeGreaterThanOrEqual(3);
    for (const e of hubs) {
      expect(states.get(e.id)).toBe("doubt");
      expect(states.get(`${e.id}/2`)).toBe("counts");
    }
    expect(s.adjustment!.chiSquare.p).toBeGreaterThan(0.001);
    expect(offBy(moved, s)).toBeLessThan(16.3);
  });
});

import { describe, expect, it } from "vitest";
import type { Target } from "@/core/sheet";
import { degToRad } from "@/core/units";
import { boardOf } from "@/devices/bench/stand-sim";
import { act, measure, openBay, type BenchWorld } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { nextAct, quantitiesOf, solveScene, type Scene, type SetOutEntry } from ".";

const base = planOf(0, 0);
const board = (id: string, acrossMm: number): Target => ({
  ...base.target,
  id,
  name: `${id} board`,
  placement: { ...base.target.placement, acrossMm },
  beam: { acrossMm: 0 },
});
const BOARDS = [board("left", 380), board("right", -380)] as const;
const SCENE = BOARDS.map((target) => ({
  id: target.id,
  carrier: "beam",
  plan: { ...base, target },
})) as unknown as Scene;

type Worlds = Record<string, BenchWorld>;
/** One stand as it was rolled in, seen from either board: each hangs on the rail by eye. */
function open(seed: string): Worlds {
  return Object.fromEntries(
    BOARDS.map((target) => [target.id, openBay(seed, { ...base, target })]),
  );
}
const OF_BEAM = ["tape-fl-l", "tape-fr-r", "tape-fl-r", "laser-badge", "height-rule"];
const reading = (worlds: Worlds, target: string, slotId: string, n = 0): SetOutEntry => ({
  kind: "reading",
  id: `${target}-${slotId}-${n}`,
  target,
  slotId,
  shown: measure(worlds[target]!, slotId, n),
  sigma: { "laser-badge": 1.6, "rail-scale": 1.5, "height-rule": 1 }[slotId] ?? 2,
});

describe("two boards on one beam", () => {
  it("one pose carries both: what was read at the one is known of the other, but for its place on the rail", () => {
    const worlds = open("beam");
    const entries = [
      ...OF_BEAM.map((id) => reading(worlds, "left", id)),
      reading(worlds, "left", "rail-scale"),
    ];
    const { targets, estimate } = solveScene(SCENE, entries);
    expect(estimate.network.bodies).toHaveLength(1);
    const [left, right] = BOARDS.map((b) => targets.get(b.id)!);
    expect(left!.unproved).toEqual([]);
    expect(right!.unproved).toEqual(["rail"]);
    const sigma = (s: typeof left, id: string): number =>
      quantitiesOf(s!).find((q) => q.id === id)!.sigma;
    for (const id of ["twist", "height"]) expect(sigma(right, id)).toBeCloseTo(sigma(left, id), 9);
    expect(sigma(right, "across")).toBeGreaterThan(10 * sigma(left, "across"));
    // What is asked next of the right one is its own scale, not the beam once more.
    const { next } = nextAct(right!);
    expect(next.kind === "read" && next.candidate.slot.id).toBe("rail-scale");
  });

  it("are both set out by the advice alone, on one stand, and truly hang where they must", () => {
    for (let n = 0; n < 6; n++) {
      const seed = `beam-${n}`;
      const worlds = open(seed);
      const entries: SetOutEntry[] = [];
      const times = new Map<string, number>();
      for (const { id } of BOARDS)
        for (let k = 0; ; k++) {
          expect(k).toBeLessThan(50);
          const { next } = nextAct(solveScene(SCENE, entries).targets.get(id)!);
          const name = `${id}-${k}`;
          if (next.kind === "settle") break;
          if (next.kind === "move") {
            const { predicted: _, ...move } = next.move;
            for (const b of BOARDS) {
              // The other board feels the beam, not the hand on its neighbour.
              const felt = move.kind === "rail" && b.id !== id ? { ...move, leftMm: 0 } : move;
              worlds[b.id] = act(worlds[b.id]!, { id: name, kind: "move", move: felt });
            }
            const rest = next.rest.map(({ predicted: __, ...m }) => m);
            entries.push({ kind: "move", id: name, target: id, move, rest });
          } else if (next.kind === "read") {
            const { slot, sigma } = next.candidate;
            const at = times.get(`${id}/${slot.id}`) ?? 0;
            times.set(`${id}/${slot.id}`, at + 1);
            entries.push({ ...reading(worlds, id, slot.id, at), id: name, sigma } as SetOutEntry);
          } else if (next.kind === "finish") throw new Error("This stand is not to be finished.");
          else {
            // One reading in a thousand looks wrong where nothing is: it is left out as asked.
            const out = next.leaveOut?.ids;
            if (!out) throw new Error(next.message);
            entries.splice(0, entries.length, ...entries.filter((e) => !out.includes(e.id)));
          }
        }
      // Where both truly hang, by plain trigonometry about the badges' line.
      for (const b of BOARDS) {
        const w = worlds[b.id]!;
        const { pose } = boardOf(base.stand, w.stand);
        const at = (id: string) => w.points.find((p) => p.id === id)!;
        const [rear, front] = [at("badgeR"), at("badgeF")];
        const way = Math.atan2(front.yMm - rear.yMm, front.xMm - rear.xMm);
        // Facing the car, the beam's own right hand is vehicle left.
        const x = pose.xMm + Math.sin(pose.headingRad) * w.railMm;
        const y = pose.yMm - Math.cos(pose.headingRad) * w.railMm;
        const far = Math.hypot(x - rear.xMm, y - rear.yMm);
        const across = far * Math.sin(Math.atan2(y - rear.yMm, x - rear.xMm) - way);
        const { tolerance, placement } = b;
        expect(Math.abs(across - placement.acrossMm)).toBeLessThan(1.3 * tolerance.acrossMm!);
        const twist = Math.sin(pose.headingRad - way - Math.PI);
        expect(Math.abs(twist)).toBeLessThan(1.3 * degToRad(tolerance.twistDeg!));
      }
    }
  });

  it("a board slid along the rail is asked for again, its neighbour keeps its own", () => {
    const worlds = open("slid");
    const entries = [
      ...OF_BEAM.map((id) => reading(worlds, "left", id)),
      reading(worlds, "left", "rail-scale"),
      reading(worlds, "right", "rail-scale"),
    ];
    const before = solveScene(SCENE, entries).targets;
    const slid: SetOutEntry = {
      kind: "move",
      id: "slide",
      target: "left",
      move: { kind: "rail", leftMm: 9, after: before.get("left")!.board },
      rest: [],
    };
    const after = solveScene(SCENE, [...entries, slid]).targets;
    const rail = (of: typeof before, id: string): number => of.get(id)!.scalars.rail.value;
    expect(rail(after, "left") - rail(before, "left")).toBeCloseTo(9, 6);
    expect(rail(after, "right")).toBe(rail(before, "right"));
    expect(after.get("left")!.unproved).toContain("rail");
    expect(after.get("right")!.unproved).not.toContain("rail");
  });
});

import { describe, expect, it } from "vitest";
import { boardOf } from "@/devices/bench/stand-sim";
import { act, measure, openBay } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import {
  atRandom,
  byAdvice,
  followAdvice,
  inOrder,
  readUntilSure,
  recheck,
  setBoard,
  walkByAdvice,
} from "@/bench/hands";
import {
  decideByThird,
  nextAct,
  slotsFor,
  solveSetOut,
  TOUCHES,
  type Move,
  type SetOutEntry,
  type TouchKind,
} from ".";

const plan = planOf(0, 0);
const order = slotsFor(plan)
  .filter((s) => s.observes.in !== "plan" || /^(tape|laser)/.test(s.id))
  .map((s) => s.id);
const mean = (list: number[]): number => list.reduce((a, b) => a + b, 0) / list.length;

describe("the next best reading", () => {
  it("comes to a sure verdict in fewer readings than a fixed order, and than chance", () => {
    const worlds = Array.from({ length: 60 }, (_, n) => openBay(`trial/${n}`, plan));
    const count = (choose: (n: number) => Parameters<typeof readUntilSure>[2]): number[] =>
      worlds.map((w, n) => readUntilSure(w, [], choose(n), "t").readings);
    const advice = count(() => byAdvice);
    expect(Math.min(...advice)).toBeGreaterThan(2);
    expect(mean(advice)).toBeLessThan(mean(count(() => inOrder(order))));
    expect(mean(advice)).toBeLessThan(mean(count((n) => atRandom(`r${n}`, order))));
  });
});

describe("a stand whose adjusters were left anywhere", () => {
  it("is brought to its marks first; then no move asks for more than there is", () => {
    for (const seed of ["left", "anywhere", "by whoever"]) {
      const bay = openBay(seed, plan);
      // Near its stops: from there a slide of a hundred millimetres is none.
      const joints = plan.stand.joints.map((j) =>
        j.kind === "yaw" ? 0.9 * j.limitRad : -0.9 * j.limitMm,
      );
      let world = { ...bay, stand: { ...bay.stand, joints } };
      const moves: Move[] = [];
      const { end } = walkByAdvice(plan, {
        read: (slotId, nth) => measure(world, slotId, nth),
        move: (id, move) => {
          moves.push(move);
          const { stand } = world;
          if ("joint" in move) {
            const j = plan.stand.joints[move.joint]!;
            const [by, limit] =
              move.kind === "yaw"
                ? [move.turnRad, "limitRad" in j ? j.limitRad : 0]
                : [move.byMm, "limitMm" in j ? j.limitMm : 0];
            expect(Math.abs(stand.joints[move.joint]! + by)).toBeLessThanOrEqual(1.02 * limit);
          }
          world = act(world, { id, kind: "move", move });
        },
        touch: (id, touch) => void (world = act(world, { id, kind: "touch", touch })),
      });
      expect(end).toBe("set");
      expect(moves.filter((m) => m.kind === "zero")).toEqual([moves[0]]);
    }
  });

  it("is not asked for where nothing can be adjusted, nor once something was read", () => {
    const first = (p: typeof plan, entries: SetOutEntry[] = []) => {
      const { next } = nextAct(solveSetOut(p, entries));
      return next.kind === "move" ? next.move.kind : next.kind;
    };
    expect(first(plan)).toBe("zero");
    expect(first(planOf(0, 2))).not.toBe("zero");
    const height = { kind: "reading", id: "h", slotId: "height-scale", shown: 1030, sigma: 1 };
    expect(first(plan, [height as SetOutEntry])).toBe("read");
  });
});

describe("a slip", () => {
  it.each([
    ["wheel-panels", 10, ["panel-rl", "panel-rr", "panel-fl", "laser-badge"]],
    ["tapes", 10, ["tape-fl-l", "tape-fr-r", "tape-fl-r", "tape-fr-l"]],
  ] as const)(
    "%s, one reading %d mm off: the advice never ends before the board is set",
    (school, mm, slots) => {
      const way = { ...planOf(1, 1), school };
      for (let n = 0; n < 12; n++) {
        const trial = followAdvice(way, `slip/${n}`, { slotId: slots[n % slots.length]!, mm });
        expect(trial.end, `${n}: ${trial.message}`).toBe("set");
      }
    },
  );
  it("a third reading decides between two, and gives no check of its own", () => {
    const of = (id: string, shown: number) => ({
      id,
      slotId: "s",
      shown,
      sigma: 1,
      state: "counts" as const,
      result: null,
    });
    const pair = [of("a", 2871), of("b", 2881)] as const;
    expect(decideByThird(pair, 2870.5, 1)).toEqual([
      { strike: "a", stands: true },
      { strike: "b", stands: false },
    ]);
    expect(decideByThird(pair, 2960, 1).map((d) => d.stands)).toEqual([false, false]);
  });
});

describe("after a touch", () => {
  it("says how far it moved, within its own uncertainty, and that nothing did when nothing did", () => {
    let [honest, told, quiet] = [0, 0, 0];
    const all = Array.from({ length: 20 }, (_, n) => setBoard(plan, `touch/${n}`)!);
    all.forEach((set, n) => {
      const touched: SetOutEntry[] = [...set.entries, { kind: "touch", id: "t", touch: "knocked" }];
      // A large knock, and none at all: only said to have been touched.
      const world = act(set.world, { id: `t${n}`, kind: "touch", touch: "knocked" });
      const [was, is] = [
        boardOf(plan.stand, set.world.stand).pose,
        boardOf(plan.stand, world.stand).pose,
      ];
      const truly = Math.hypot(is.xMm - was.xMm, is.yMm - was.yMm);
      const moved = readUntilSure(world, touched, byAdvice, "x").judged.solution.shifted!;
      if (Math.abs(moved.mm - truly) < 3 * moved.sigmaMm) honest++;
      if (moved.sure) told++;
      if (!readUntilSure(set.world, touched, byAdvice, "y").judged.solution.shifted!.sure) quiet++;
    });
    expect(honest).toBeGreaterThanOrEqual(18);
    expect(told).toBeGreaterThanOrEqual(15);
    expect(quiet).toBeGreaterThanOrEqual(19);
  });
  it.each(Object.keys(TOUCHES) as TouchKind[])(
    "%s: sure again in fewer readings than all, and right about it",
    (touch) => {
      const trials = Array.from({ length: 12 }, (_, n) =>
        recheck(setBoard(plan, `touch/${n}`)!, touch, `${touch}${n}`),
      );
      for (const t of trials) {
        expect(t.verdict).not.toBe("read");
        expect(t.readings).toBeLessThan(order.length);
        // A knock of more than three tolerances is never passed over.
        if (t.movedMm > 3 * plan.target.tolerance.alongMm!) expect(t.verdict).toBe("move");
      }
    },
  );
});

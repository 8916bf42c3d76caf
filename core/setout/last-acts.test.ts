import { describe, expect, it } from "vitest";
import { boardOf } from "@/devices/bench/stand-sim";
import { act, measure, openBay } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { setBoard, walkByAdvice } from "@/bench/hands";
import { nextAct, solveSetOut, type SetOutEntry, type SetOutPlan, type Stand } from ".";

const finished = (extra: Partial<Stand>, school: SetOutPlan["school"] = "tapes"): SetOutPlan => {
  const plan = planOf(0, 0);
  return { ...plan, school: school!, stand: { ...plan.stand, ...extra } };
};
const ACTS = { lastActs: ["locked", "hung"] } satisfies Partial<Stand>;

/** The advice followed in one bay, with what it asked for in order. */
function walked(plan: SetOutPlan, seed: string, onHung = (w: ReturnType<typeof openBay>) => w) {
  let world = openBay(seed, plan);
  const done: string[] = [];
  const walk = walkByAdvice(plan, {
    read: (slotId, nth, anew) => {
      done.push(slotId);
      return measure(world, slotId, nth, null, anew ? nth : 0);
    },
    move: (id, move) => {
      done.push(move.kind);
      world = act(world, { id, kind: "move", move });
    },
    touch: (id, touch) => {
      done.push(touch);
      world = act(world, { id, kind: "touch", touch });
      if (touch === "hung") world = onHung(world);
    },
  });
  return { walk, world, done };
}

describe("what is done to a stand last", () => {
  it("is asked for before anything is called set, and readings follow it", () => {
    const bare = setBoard(planOf(0, 0), "last")!;
    const before = nextAct(solveSetOut(finished(ACTS), bare.entries));
    expect(before.verdict.kind).toBe("set");
    expect(before.next).toEqual({ kind: "finish", acts: ["locked", "hung"] });
    const touched = ["locked", "hung"].map((touch): SetOutEntry => ({
      kind: "touch",
      id: touch,
      touch: touch as "hung",
    }));
    const after = nextAct(solveSetOut(finished(ACTS), [...bare.entries, ...touched]));
    expect(after.solution.lacking).toEqual([]);
    expect(after.next.kind).toBe("read");
  });

  it("is asked for anew after a roll: castors that roll are not locked", () => {
    const roll: SetOutEntry = {
      kind: "move",
      id: "roll",
      move: {
        kind: "roll",
        awayMm: 40,
        leftMm: 0,
        turnRad: 0,
        after: {
          pose: { xMm: 0, yMm: 0, headingRad: Math.PI },
          heightMm: 1200,
          pitchRad: 0,
          rollRad: 0,
        },
      },
      rest: [],
    };
    const locked: SetOutEntry = { kind: "touch", id: "t", touch: "locked" };
    const hung: SetOutEntry = { kind: "touch", id: "h", touch: "hung" };
    const at = (entries: SetOutEntry[]) => solveSetOut(finished(ACTS), entries).lacking;
    expect(at([locked, hung])).toEqual([]);
    expect(at([locked, hung, roll])).toEqual(["locked"]);
  });

  it("a height that was cranked to its figure is read after the board hangs, not before", () => {
    const height = (done: string[]): number[] =>
      done.flatMap((d, i) => (d === "height-scale" || d === "height-rule" ? [i] : []));
    for (const seed of ["h", "i", "j"]) {
      const { walk, done } = walked(finished(ACTS), seed);
      expect(walk.end).toBe("set");
      expect(done.slice(0, 2)).toEqual(["zero", "crank"]);
      expect(height(done)[0]).toBeGreaterThan(done.indexOf("hung"));
    }
  });

  it("comes before the readings that prove, once nothing is to be moved", () => {
    for (const seed of ["a", "b", "c", "d"]) {
      const { walk, done } = walked(finished(ACTS), seed);
      expect(walk.end).toBe("set");
      const last = done.lastIndexOf("hung");
      expect(done.slice(last + 1).length).toBeGreaterThanOrEqual(2);
      expect(done.slice(last + 1)).not.toContain("roll");
    }
  });

  it("does not wait for a laser that sits where the board hangs, and does not take the board off for it", () => {
    const plan = finished(
      { laserOn: "hook", lastActs: ["locked", "laser-off", "hung"] },
      "wheel-panels",
    );
    for (const seed of ["e", "f", "g"]) {
      const { walk, done } = walked(plan, seed);
      expect(walk.end).toBe("set");
      // A tape that the way does not walk takes the place of the laser's line.
      expect(done.slice(done.lastIndexOf("hung"))).not.toContain("laser-badge");
      expect(done).toContain("laser-badge");
    }
  });

  it("a board whose hanging shifts its stand by 4 mm is known where it stands then", () => {
    let [sets, honest] = [0, 0];
    for (let n = 0; n < 30; n++) {
      const way = 2 * Math.PI * (n / 30);
      const { walk, world } = walked(finished(ACTS), `shift-${n}`, (w) => {
        const { base } = w.stand;
        const shifted = {
          ...base,
          xMm: base.xMm + 4 * Math.cos(way),
          yMm: base.yMm + 4 * Math.sin(way),
        };
        return { ...w, stand: { ...w.stand, base: shifted } };
      });
      if (walk.end !== "set") continue;
      sets++;
      const { board, boardCovariance, plan } = walk.judged.solution;
      const truly = boardOf(plan.stand, world.stand).pose;
      const off = (is: number, was: number, variance: number): number =>
        Math.abs(is - was) / Math.sqrt(variance);
      if (
        off(board.pose.xMm, truly.xMm, boardCovariance![0]![0]!) < 3 &&
        off(board.pose.yMm, truly.yMm, boardCovariance![1]![1]!) < 3
      )
        honest++;
    }
    expect(sets).toBeGreaterThanOrEqual(28);
    expect(honest).toBeGreaterThanOrEqual(sets - 1);
  });
});

import { describe, expect, it } from "vitest";
import { act, measure, openBay } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { nextAct, solveScene, solveSetOut, type Scene, type SetOutEntry } from ".";

const plan = planOf(0, 0);
const TAPES = ["tape-fl-l", "tape-fr-r", "tape-fl-r", "tape-fr-l"];
const READ = [...TAPES, "laser-badge", "height-rule", "tilt-pitch", "tilt-roll"];
const reading = (id: string, slotId: string, shown: number, target?: string): SetOutEntry => ({
  kind: "reading",
  id,
  slotId,
  shown,
  sigma: slotId === "laser-badge" ? 1.6 : slotId.startsWith("tilt") ? 9e-4 : 2.3,
  ...(target ? { target } : {}),
});

describe("what shows late", () => {
  it("names a reading taken before the stand was touched, once later ones contradict it", () => {
    const world = openBay("late", plan);
    const slip = "tape-fr-r";
    const before = ["tape-fl-l", slip, "laser-badge"].map((id) =>
      reading(`a-${id}`, id, measure(world, id, 0) + (id === slip ? 80 : 0)),
    );
    // Nothing checks three readings of three unknowns.
    expect(solveSetOut(plan, before).suspects).toEqual([]);
    const hung = act(world, { id: "h", kind: "touch", touch: "hung" });
    const after = READ.map((id) => reading(`b-${id}`, id, measure(hung, id, 1)));
    const s = solveSetOut(plan, [...before, { kind: "touch", id: "h", touch: "hung" }, ...after]);
    expect(s.suspects[0]).toBe(`a-${slip}`);
    expect(s.readings.find((r) => r.id === `a-${slip}`)!.state).toBe("doubt");
    // It cannot be read again: the stand stands elsewhere. It is left out.
    const { next } = nextAct(s);
    expect(next).toMatchObject({ kind: "stuck", leaveOut: { ids: [`a-${slip}`] } });
  });

  it("lets go of a move that did not end where it was told to, and believes the readings after it", () => {
    const world = openBay("strayed", plan);
    const before = READ.map((id) => reading(`a-${id}`, id, measure(world, id, 0)));
    const told: SetOutEntry = {
      kind: "move",
      id: "m",
      rest: [],
      move: { kind: "crank", upMm: 5, turns: 1, after: solveSetOut(plan, before).board },
    };
    // While it was cranked somebody walked into it.
    const knocked = act(world, { id: "b", kind: "bump" });
    const after = READ.map((id) => reading(`b-${id}`, id, measure(knocked, id, 1)));
    const s = solveSetOut(plan, [...before, told, ...after]);
    expect(s.strayed).toBe(true);
    expect(s.suspects).toEqual([]);
    const alone = solveSetOut(plan, after);
    expect(
      Math.hypot(s.board.pose.xMm - alone.board.pose.xMm, s.board.pose.yMm - alone.board.pose.yMm),
    ).toBeLessThan(3);
  });
});

describe("two targets of one setup", () => {
  const other = { ...plan, stand: planOf(1, 1).stand };
  const scene: Scene = [
    { id: "left", carrier: "S-1", plan },
    { id: "right", carrier: "S-3", plan: other },
  ];
  const worlds = { left: openBay("pair", plan), right: openBay("pair", other) };
  const of = (target: "left" | "right", tag: string): SetOutEntry[] =>
    READ.map((id) => reading(`${tag}-${target}-${id}`, id, measure(worlds[target], id, 0), target));

  it("share one vehicle: what is read of one makes the other better known, and moves it nowhere", () => {
    const right = of("right", "a");
    const alone = solveScene(scene, right).targets.get("right")!;
    const both = solveScene(scene, [...right, ...of("left", "a")]).targets.get("right")!;
    const variance = (s: typeof alone): number => s.aim!.covariance[0]![0]!;
    expect(variance(both)).toBeLessThan(variance(alone));
    expect(Math.abs(both.aim!.alongMm - alone.aim!.alongMm)).toBeLessThan(
      3 * Math.sqrt(variance(alone)),
    );
  });

  it("a slip at one of them keeps nobody from proving the other", () => {
    const knocked: SetOutEntry = { kind: "touch", id: "t", touch: "hung", target: "right" };
    const slipped = of("left", "a").map((e) =>
      e.id === "a-left-tape-fr-r" && e.kind === "reading" ? { ...e, shown: e.shown + 90 } : e,
    );
    const again = of("right", "b");
    const owing = (left: SetOutEntry[]): readonly string[] =>
      solveScene(scene, [...of("right", "a"), ...left, knocked, ...again]).targets.get("right")!
        .owing;
    expect(solveScene(scene, slipped).targets.get("left")!.suspects).not.toEqual([]);
    expect(owing(of("left", "a"))).toEqual([]);
    expect(owing(slipped)).toEqual([]);
  });

  it("a touch reaches its own carrier, a moved car reaches both", () => {
    const all = [...of("left", "a"), ...of("right", "a")];
    const states = (more: SetOutEntry): Record<string, Set<string>> => {
      const { targets } = solveScene(scene, [...all, more]);
      return Object.fromEntries(
        [...targets].map(([id, s]) => [id, new Set(s.readings.map((r) => r.state))]),
      );
    };
    expect(states({ kind: "touch", id: "t", touch: "knocked", target: "left" })).toEqual({
      left: new Set(["doubt"]),
      right: new Set(["counts"]),
    });
    // Heights stay: nobody touched the stands.
    expect(states({ kind: "touch", id: "t", touch: "moved-car" })).toEqual({
      left: new Set(["doubt", "counts"]),
      right: new Set(["doubt", "counts"]),
    });
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { planOf } from "@/tests/fixtures";
import { nextAct, pairOf, readPair, solveSetOut, type SetOutEntry } from ".";

const judgedAt = (entries: SetOutEntry[] = []) =>
  nextAct(solveSetOut({ ...planOf(0, 0), school: "wheel-panels" }, entries));
const START: SetOutEntry[] = [
  { kind: "reading", id: "a", slotId: "panel-fl", shown: 2950, sigma: 1 },
  { kind: "reading", id: "b", slotId: "laser-badge", shown: 10, sigma: 1 },
];
const slots = () => {
  const { solution } = judgedAt();
  const of = (id: string) => solution.slots.find((s) => s.id === id)!;
  return [of("panel-rl"), of("panel-rr")] as const;
};

describe("left and right in one entry", () => {
  it("reads them with a space, with spaces in the figures, and without any", () => {
    for (const text of ["5412 5396", "5 412 5 396", "54125396", "5412/5396", " 5412;5396 "])
      expect(readPair(text, slots(), "mm")?.values, text).toEqual([5412, 5396]);
  });

  it("is no pair where it is one figure, or where nobody can say where it parts", () => {
    for (const text of ["5412", "5 412", "", "541", "54125", "5412 abc", "5412 5396 5400"])
      expect(readPair(text, slots(), "mm"), text).toBeNull();
  });

  it("gives back what was typed, and its figures, for any two of four figures", () => {
    const figure = fc.integer({ min: 4000, max: 6500 });
    fc.assert(
      fc.property(figure, figure, fc.constantFrom(" ", ""), (a, b, gap) => {
        const pair = readPair(`${a}${gap}${b}`, slots(), "mm");
        expect(pair).toEqual({ values: [a, b], typed: [String(a), String(b)] });
      }),
    );
  });

  it("is offered, left first, whichever of the two is asked for, while the other is wanted as much", () => {
    const { solution, candidates } = judgedAt(START);
    const of = (id: string) => candidates.find((c) => c.slot.id === id && !c.anew)!;
    for (const id of ["panel-rl", "panel-rr"])
      expect(pairOf(solution, candidates, of(id))?.map((c) => c.slot.id)).toEqual([
        "panel-rl",
        "panel-rr",
      ]);
    expect(pairOf(solution, candidates, of("panel-fl"))).toBeNull();
    const read: SetOutEntry = {
      kind: "reading",
      id: "c",
      slotId: "panel-rl",
      shown: 5412,
      sigma: 1,
    };
    const after = judgedAt([...START, read]);
    const right = after.candidates.find((c) => c.slot.id === "panel-rr")!;
    expect(pairOf(after.solution, after.candidates, right)).toBeNull();
  });
});

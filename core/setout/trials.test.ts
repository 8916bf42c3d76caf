import { describe, expect, it } from "vitest";
import { openBay } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { atRandom, byAdvice, inOrder, readUntilSure, recheck, setBoard } from "@/tests/trials";
import { slotsFor, TOUCHES, type TouchKind } from ".";

const plan = planOf(0, 0);
const order = slotsFor(plan).filter((s) => s.observes.in !== "plan" || /^(tape|laser)/.test(s.id)).map((s) => s.id); // prettier-ignore
const mean = (list: number[]): number => list.reduce((a, b) => a + b, 0) / list.length;

describe("the next best reading", () => {
  it("comes to a sure verdict in fewer readings than a fixed order, and than chance", () => {
    const worlds = Array.from({ length: 60 }, (_, n) => openBay(`trial/${n}`, plan));
    const count = (choose: (n: number) => Parameters<typeof readUntilSure>[2]): number[] => worlds.map((w, n) => readUntilSure(w, [], choose(n), "t").readings); // prettier-ignore
    const advice = count(() => byAdvice);
    expect(mean(advice)).toBeLessThan(mean(count(() => inOrder(order))));
    expect(mean(advice)).toBeLessThan(mean(count((n) => atRandom(`r${n}`, order))));
  });
});

describe("after a touch", () => {
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
        if (t.movedMm > 3 * plan.sheet.tolerance.alongMm) expect(t.verdict).toBe("move");
      }
    },
  );
});

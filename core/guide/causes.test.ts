import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { degToRad } from "@/core/units";
import { failure } from "@/tests/refusals";
import { CAUSES, rankCauses, type CauseEvidence } from "./causes";
import { BOARD_QUANTITIES, lookGeometry } from "./effects";
import { foretellAim } from "./foretell";

describe("what a look makes of a board that is out", () => {
  const look = lookGeometry(3400, 40, 900);
  it("learns a board to the left as a camera turned right, and leaves nothing of it", () => {
    const { turn, left } = look.effectAt("side", 34);
    expect(turn[0]).toBeCloseTo(-0.01, 3);
    expect(Math.max(...left.map(Math.abs))).toBeLessThan(2e-4);
  });
  it("sees a board a hundredth farther a hundredth smaller, and one that is turned narrower", () => {
    expect(look.effectAt("along", 34).size).toBeCloseTo(-0.0099, 3);
    const turned = look.effectAt("twist", degToRad(20));
    // All its width shrinks by the cosine, none of its height: the mean of the two.
    expect(turned.size).toBeLessThan(-0.03);
    expect(turned.size).toBeGreaterThan(Math.cos(degToRad(20)) - 1);
  });
  it("is to first order what it is of a little", () => {
    for (const q of BOARD_QUANTITIES) {
      const small = q === "along" || q === "side" || q === "height" ? 1 : degToRad(0.05);
      const whole = look.effectAt(q, small);
      look.effects[q].left.forEach((v, i) =>
        expect(Math.abs(v * small - whole.left[i]!)).toBeLessThan(2e-6),
      );
    }
  });
});

describe("causes of a refusal", () => {
  it("are as likely as they are said to be", { timeout: 60_000 }, () => {
    const N = 180;
    const ranked = Array.from({ length: N }, (_, n) => {
      const { cause, evidence, answer } = failure(n);
      const top = rankCauses(evidence, answer)[0]!;
      return { stated: top.share, hit: top.cause === cause };
    });
    const hits = (list: typeof ranked): number => list.filter((r) => r.hit).length / list.length;
    const said = (list: typeof ranked): number =>
      list.reduce((s, r) => s + r.stated, 0) / list.length;
    const [sure, unsure] = [
      ranked.filter((r) => r.stated >= 0.8),
      ranked.filter((r) => r.stated < 0.8),
    ];
    // Three standard deviations of a share of so many.
    for (const part of [ranked, sure, unsure]) {
      const p = said(part);
      expect(part.length).toBeGreaterThan(25);
      expect(Math.abs(hits(part) - p)).toBeLessThan(3 * Math.sqrt((p * (1 - p)) / part.length));
    }
    expect(hits(ranked)).toBeGreaterThan(0.8);
  });

  const plain: CauseEvidence = {
    board: Object.fromEntries(
      BOARD_QUANTITIES.map((q) => [
        q,
        /along|side|height/.test(q)
          ? { mean: 0, sigma: 1.5, usual: 5 }
          : { mean: 0, sigma: degToRad(0.1), usual: degToRad(0.25) },
      ]),
    ) as CauseEvidence["board"],
    proved: true,
    looked: { print: "looked", clutter: "looked", glare: "looked", load: "looked" },
    camera: foretellAim(null, []),
    geometry: { rangeMm: 3400, aboveMm: 40, widthMm: 900 },
  };
  it("turn to what nobody looked for", () => {
    const shape = { code: "shape", turn: [0.004, 0, 0], qualityPercent: 45, size: 0.002 } as const;
    const answer = { ...shape, turn: [...shape.turn] as [number, number, number] };
    const share = (evidence: CauseEvidence): number =>
      rankCauses(evidence, answer).find((r) => r.cause === "clutter")!.share;
    const unseen = { ...plain.looked, clutter: "not-looked" } as const;
    expect(share({ ...plain, looked: unseen })).toBeGreaterThan(2 * share(plain) - 1e-9);
    expect(rankCauses({ ...plain, looked: unseen }, answer)[0]!.cause).toBe("clutter");
  });
  it("are shares of one, whatever is answered", () => {
    fc.assert(
      fc.property(
        fc.tuple(
          fc.double({ min: -0.1, max: 0.1, noNaN: true }),
          fc.double({ min: 0, max: 100, noNaN: true }),
        ),
        fc.boolean(),
        fc.option(fc.double({ min: -0.3, max: 0.3, noNaN: true })),
        ([yaw, qualityPercent], lost, size) => {
          const ranked = rankCauses(plain, {
            code: lost ? "not-found" : "aim-side",
            turn: lost ? null : [yaw, -yaw / 2, yaw / 3],
            qualityPercent,
            size: lost ? null : size,
          });
          expect(ranked.map((r) => r.cause).sort()).toEqual([...CAUSES].sort());
          expect(ranked.reduce((s, r) => s + r.share, 0)).toBeCloseTo(1, 9);
        },
      ),
      { numRuns: 25 },
    );
  });
});

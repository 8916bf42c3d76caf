import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { adjustNetwork, predictReadings, type Reading, type SurveyNetwork } from ".";
import { observe, type Truth } from "@/tests/independent-solver";

const network: SurveyNetwork = {
  points: [
    { id: "FL", xMm: 2610, yMm: 840, sigmaMm: 1.2 },
    { id: "FR", xMm: 2610, yMm: -840, sigmaMm: 1.2 },
    { id: "B", xMm: 3490, yMm: 0, fixed: true },
  ],
  bodies: [
    {
      id: "stand",
      xMm: 5470,
      yMm: 12,
      headingRad: Math.PI - 0.01,
      points: [
        { id: "L", xMm: 0, yMm: -1150 },
        { id: "R", xMm: 0, yMm: 1150 },
        { id: "C", xMm: 0, yMm: 0 },
        { id: "ahead", xMm: 1000, yMm: 0 },
      ],
      priorCovariance: [
        [400, 0, 0],
        [0, 400, 0],
        [0, 0, 0.0004],
      ],
    },
  ],
  observations: [],
};

const WANTED: Reading[] = [
  { id: "tape", kind: "distance", from: "FL", to: "stand.R", valueMm: 0, sigma: 1 },
  {
    id: "laser",
    kind: "offset",
    point: "B",
    lineFrom: "stand.C",
    lineTo: "stand.ahead",
    valueMm: 0,
    sigma: 1,
  },
  {
    id: "along",
    kind: "station",
    point: "stand.C",
    lineFrom: "FR",
    lineTo: "FL",
    valueMm: 0,
    sigma: 1,
  },
  {
    id: "beam",
    kind: "range",
    from: "stand.L",
    directionRad: 0.02,
    panelPoint: "FL",
    panelHeadingRad: 0.03,
    valueMm: 0,
    sigma: 1,
  },
  { id: "compass", kind: "heading", body: "stand", valueRad: 0, sigma: 0.01 },
];

describe("predicted readings", () => {
  const adjustment = adjustNetwork(network);
  const { index } = adjustment.joint;

  it("are what a perfect instrument would show", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -80, max: 80, noNaN: true }),
        fc.double({ min: -80, max: 80, noNaN: true }),
        fc.double({ min: -0.05, max: 0.05, noNaN: true }),
        (dx, dy, turn) => {
          const pose = {
            id: "stand",
            xMm: 5470 + dx,
            yMm: dy,
            headingRad: Math.PI + turn,
            covariance: [],
          };
          const at: Truth = { stand: [pose.xMm, pose.yMm, pose.headingRad] };
          const predicted = predictReadings(
            network,
            { points: adjustment.points, bodies: [pose] },
            WANTED,
          );
          predicted.forEach((p, i) => {
            const apart = p.value - observe(WANTED[i]!, network, at);
            expect(WANTED[i]!.kind === "heading" ? Math.sin(apart) : apart).toBeCloseTo(0, 7);
          });
        },
      ),
    );
  });

  it("carry the derivatives by every unknown, as small displacements show", () => {
    const predicted = predictReadings(network, adjustment, WANTED);
    const base = (): Truth => ({
      FL: [2610, 840],
      FR: [2610, -840],
      stand: [5470, 12, Math.PI - 0.01],
    });
    for (const [id, coordinates] of Object.entries({ FL: 2, FR: 2, stand: 3 }))
      for (let k = 0; k < coordinates; k++) {
        const h = k === 2 ? 1e-6 : 1e-3;
        const [plus, minus] = [base(), base()];
        plus[id]![k]! += h;
        minus[id]![k]! -= h;
        WANTED.forEach((o, i) => {
          const slope = (observe(o, network, plus) - observe(o, network, minus)) / (2 * h);
          expect(predicted[i]!.gradient[index[id]! + k]).toBeCloseTo(slope, k === 2 ? 2 : 5);
        });
      }
  });
});

import { describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import { learnDimensions, type CarSeen, type Vehicle } from "@/core/vehicle";
import { openBay, measure } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { carSeen, readingSigma, slotsFor, solveSetOut, type SetOutEntry, type SetOutPlan } from ".";

const book = planOf(0, 0);
const READ = [
  "tape-fl-l",
  "tape-fr-r",
  "tape-fl-r",
  "tape-fr-l",
  "tape-rl-l",
  "tape-rr-r",
  "laser-badge",
  "box-centre",
  "box-ahead",
];

/** What a shop sees of one car whose model truly is `truth`, by its book. */
function seen(truth: Vehicle, seed: string): CarSeen {
  const world = {
    ...openBay(seed, book),
    points: openBay(seed, { ...book, vehicle: truth } as SetOutPlan).points,
  };
  const entries = READ.map((slotId): SetOutEntry => {
    const slot = slotsFor(book).find((s) => s.id === slotId)!;
    const instrument = book.instruments.find((i) => i.kind === slot.instrument)!;
    const shown = measure(world, slotId, 0);
    const sigma = readingSigma(instrument, slot, shown);
    return { kind: "reading", id: slotId, slotId, shown, sigma };
  });
  return carSeen(solveSetOut(book, entries))!;
}

/** The model as it truly is, beside what somebody measured of it. */
const off = (wheelbase: number, rearTrack: number, badgeLeft: number): Vehicle => ({
  ...book.vehicle,
  wheelbaseMm: book.vehicle.wheelbaseMm + wheelbase,
  trackRearMm: book.vehicle.trackRearMm + rearTrack,
  frontBadge: { ...book.vehicle.frontBadge, yMm: book.vehicle.frontBadge.yMm + badgeLeft },
});

describe("the book learns from the cars of a model", () => {
  it("holds the model's true dimensions as often as it claims, and proposes what is off", () => {
    let [held, asked, found] = [0, 0, 0];
    const random = randomFrom(77);
    for (let n = 0; n < 30; n++) {
      const by = [4 * gaussian(random), 4 * gaussian(random), 3 * gaussian(random)] as const;
      const truth = off(...by);
      const cars = Array.from({ length: 25 }, (_, k) => seen(truth, `model/${n}/${k}`));
      const learned = learnDimensions(book.vehicle, cars);
      const of = (path: string) => learned.find((l) => l.path === path)!;
      const sure = [of("wheelbaseMm"), of("trackRearMm"), of("frontBadge.yMm"), of("trackFrontMm")];
      [...by, 0].forEach((true_, i) => {
        asked++;
        if (Math.abs(sure[i]!.besideMm - true_) < 1.96 * sure[i]!.sigmaMm) held++;
      });
      if (Math.abs(by[0]) > 4 && of("wheelbaseMm").proposedMm !== null) found++;
      expect(of("wheelbaseMm").sigmaMm).toBeLessThan(1.2);
    }
    expect(asked).toBe(120);
    expect(held / asked).toBeGreaterThan(0.88);
    expect(held / asked).toBeLessThan(0.995);
    expect(found).toBeGreaterThan(3);
  });

  it("says of the model what conditioning model and cars together says", () => {
    // One car of two marks seen by one figure each, worked out in full: mu, e, reading.
    const [model, spread, noise] = [25, book.vehicle.badgeSigmaMm ** 2, 2.25];
    const [figure, C] = [3.4, 1 / (1 / spread + 1 / noise)];
    const blind = learnDimensions(book.vehicle, [seenAlone((C * figure) / noise, C)]);
    const badge = blind.find((l) => l.path === "frontBadge.xMm")!;
    const gain = model / (model + spread + noise);
    expect(badge.besideMm).toBeCloseTo(gain * figure, 9);
    expect(badge.sigmaMm ** 2).toBeCloseTo(model - gain * model, 9);
    expect(blind.find((l) => l.path === "rearBadge.xMm")).toMatchObject({ proposedMm: null });
    expect(blind.find((l) => l.path === "rearBadge.xMm")!.sigmaMm).toBeCloseTo(5, 9);
  });

  it("proposes nothing from a few cars, nor where the book is right", () => {
    const truth = off(12, 0, 0);
    const cars = Array.from({ length: 20 }, (_, k) => seen(truth, `few/${k}`));
    const proposed = (list: CarSeen[]) =>
      learnDimensions(book.vehicle, list).filter((l) => l.proposedMm !== null);
    expect(proposed(cars.slice(0, 4))).toEqual([]);
    const [wheelbase] = proposed(cars);
    expect(wheelbase!.path).toBe("wheelbaseMm");
    expect(Math.abs(wheelbase!.proposedMm! - truth.wheelbaseMm)).toBeLessThan(3);
    let wrong = 0;
    for (let n = 0; n < 12; n++) {
      const right = Array.from({ length: 12 }, (_, k) => seen(book.vehicle, `right/${n}/${k}`));
      wrong += proposed(right).length;
    }
    expect(wrong).toBeLessThanOrEqual(3);
  });
});

/** A car of which only the front badge's place ahead was seen. */
function seenAlone(mean: number, variance: number): CarSeen {
  const prior = carSeen(solveSetOut(book, [readHeight()]))!;
  const at = 2 * 4;
  return {
    mean: prior.mean.map((_, i) => (i === at ? mean : 0)),
    covariance: prior.covariance.map((row, i) =>
      row.map((v, j) => (i === at && j === at ? variance : v)),
    ),
  };
}
const readHeight = (): SetOutEntry => ({
  kind: "reading",
  id: "h",
  slotId: "height-rule",
  shown: 1200,
  sigma: 1,
});

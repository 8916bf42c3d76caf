import { archPlace, CORNERS } from "@/core/vehicle";
import { gaussian, randomFrom } from "@/core/math/random";
import { bestFit, SLACK_MM, type Pose } from "@/core/space/fit";
import { floorGrid, floorRule, floorSurface } from "@/core/space/level";
import { VEHICLES } from "@/demo/data/vehicles";
import { anyBay, anyZones, gridBest, roomAt } from "@/tests/any-bay";
import { told } from "./house";

const LIMITS = { slopeDeg: 0.25, twistMm: 6, targets: [] };

/**
 * Bays as chance has them, every third with a surveyed floor: each pose that is found beside the best of
 * a grid of 50 mm and 2 degrees, whose arithmetic is another.
 */
export function bays(many: number): void {
  const car = VEHICLES[0]!;
  let [fits, lacking, worst, wrong, slowest] = [0, 0, -Infinity, 0, 0];
  for (let n = 0; n < many; n++) {
    const random = randomFrom(4000 + n);
    const zones = anyZones(random);
    const [falls, tilts, bow] = [gaussian(random) * 4, gaussian(random) * 4, gaussian(random) * 6];
    const height = (x: number, y: number): number =>
      (falls * x + tilts * y) / 1000 + bow * Math.sin(x / 2500);
    const plain = anyBay(random);
    const floored = n % 3 === 0;
    const spots = Array.from({ length: 77 }, (_, i) => ({
      xMm: (i % 11) * 1100,
      yMm: Math.floor(i / 11) * 1300,
    }));
    const readings = spots.map((s, spot) => ({ spot, mm: 1000 - height(s.xMm, s.yMm) }));
    const setups = [{ levelMmPerM: 0.2, readMm: 0.3, readings }];
    const bay = floored ? { ...plain, floor: { on: "2026-10-01", spots, setups } } : plain;
    const surface = floorSurface(bay);
    const rule = surface && floorRule(floorGrid(bay, surface), car, LIMITS);
    /** From the floor's own form: nothing of the survey is in it. */
    const allowed = ({ xMm, yMm, headingRad }: Pose): boolean => {
      if (!floored) return true;
      const [FL, FR, RL, RR] = CORNERS.map((c) => {
        const { xMm: a, yMm: b } = archPlace(car, c);
        const [s, k] = [Math.sin(headingRad), Math.cos(headingRad)];
        return height(xMm + a * k - b * s, yMm + a * s + b * k);
      }) as [number, number, number, number];
      const deg = (mm: number, over: number): number => (Math.atan2(mm, over) * 180) / Math.PI;
      const wide = (car.trackFrontMm + car.trackRearMm) / 2;
      // A little inside the limits: the survey knows the floor to a few tenths of a millimetre.
      return (
        Math.abs(deg((FL + FR - RL - RR) / 2, car.wheelbaseMm)) < LIMITS.slopeDeg - 0.02 &&
        Math.abs(deg((FL + RL - FR - RR) / 2, wide)) < LIMITS.slopeDeg - 0.03 &&
        Math.abs(FL - FR - RL + RR) / 4 < LIMITS.twistMm - 0.5
      );
    };
    const from = performance.now();
    const fit = bestFit(bay, zones, { floor: rule });
    slowest = Math.max(slowest, performance.now() - from);
    const is = fit.floorUsed === null || fit.floorUsed <= 1 ? fit.marginMm : -Infinity;
    const { room } = gridBest(bay, zones, 50, 2, allowed);
    if (is >= 0) {
      fits++;
      if (Math.abs(roomAt(bay, zones, fit.pose) - is) > 0.01) wrong++;
    }
    if (room > 0 && is < 0) lacking++;
    if (room > 0) worst = Math.max(worst, room - is);
  }
  told(
    `${many} bays beside a grid of 50 mm and 2 degrees`,
    lacking === 0 && worst <= SLACK_MM && wrong === 0 && fits > many / 3,
    `${fits} fit; at the most ${worst.toFixed(1)} mm less room than the grid's best; the slowest took ${slowest.toFixed(0)} ms`,
  );
}

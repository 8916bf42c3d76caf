import { outlookOn, spreadOf } from "@/core/drive/expect";
import { nearestNode, networkOf } from "@/core/drive/network";
import { bandOf, withReserve } from "@/core/drive/plan";
import { legsOf } from "@/core/drive/route";
import { soonestLoop } from "@/core/drive/search";
import { sunAt } from "@/core/drive/sun";
import { island, SHOP_PLACE } from "@/demo/data/island";
import { SHEETS } from "@/demo/data/sheets";
import { driven } from "@/devices/road/world";
import { told } from "./house";

/**
 * Planned drives of the island beside so many that are driven second by second: the mean of their
 * minutes within five in a hundred, and of the band that four in five should keep to, 75 to 85.
 */
export function drives(many: number): void {
  const rules = SHEETS.find((s) => s.id === "harrow-forward")!.drive!;
  const network = networkOf(island());
  const home = nearestNode(network, SHOP_PLACE);
  const hourOfDay = (atMs: number): number => (atMs / 3_600_000) % 24;
  const camera = { turnDeg: 0, downDeg: 2 };
  for (const hour of [8, 11, 14]) {
    const departMs = Date.UTC(2026, 10, 3, hour);
    const forecast = Array.from({ length: 4 }, (_, i) => ({
      fromMs: departMs + (i - 1) * 3_600_000,
      rain: 0,
      fog: 0,
      snow: 0,
      wet: 0,
      cloud: 0.5,
    }));
    const outlook = outlookOn({ network, rules: withReserve(rules), forecast, camera }, hourOfDay);
    const loop = soonestLoop(outlook, home, departMs, { labels: 400_000, longestS: 7200 })!;
    const legs = legsOf(network, loop.ways);
    const [from, to] = bandOf(loop.seconds, spreadOf(outlook, loop.ways, departMs));
    let [sum, inside] = [0, 0];
    for (let n = 0; n < many; n++) {
      let seconds = 0;
      const road = driven({
        legs,
        departMs,
        seed: `soak/${hour}/${n}`,
        forecast,
        hourOfDay,
        sun: (atMs) => sunAt(atMs, SHOP_PLACE[1], SHOP_PLACE[0]),
        camera,
        keepsMps: 87.5 / 3.6,
      });
      while (!road.next().done) seconds++;
      sum += seconds;
      if (seconds >= from && seconds <= to) inside++;
    }
    const off = sum / many / loop.seconds - 1;
    const share = inside / many;
    told(
      `drives planned for ${hour}:00, ${many} of them driven`,
      Math.abs(off) < 0.05 && share >= 0.75 && share <= 0.85,
      `mean ${(100 * off).toFixed(2)} % off the plan’s ${(loop.seconds / 60).toFixed(1)} min; ${(100 * share).toFixed(1)} % inside the band of four in five`,
    );
  }
}

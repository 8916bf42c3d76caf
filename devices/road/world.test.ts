import { describe, expect, it } from "vitest";
import { DRIVE_START, qualify, type DriveProgress } from "@/core/drive/qualify";
import { nearestNode } from "@/core/drive/network";
import { island, SHOP_PLACE } from "@/demo/data/island";
import { islandDrive, network, roads, rules } from "@/tests/island-drive";

const home = nearestNode(network, SHOP_PLACE);

/** The plan of a departure, and how so many drives of it went. */
function drives(departMs: number, many: number, sky?: { rain: number }) {
  const { plan, drive } = islandDrive(departMs, sky);
  const gone = Array.from({ length: many }, (_, n) => {
    let [progress, seconds]: [DriveProgress, number] = [DRIVE_START, 0];
    let over = 0;
    for (const { sample, leg } of drive(`mc/${n}`)) {
      progress = qualify(rules, progress, sample);
      seconds++;
      if (sample.speedMps! > plan.legs[leg]!.limitMps * 1.4 + 4) over++;
    }
    return { progress, seconds, over };
  });
  return { plan, gone };
}
const mean = (of: readonly number[]): number => of.reduce((s, x) => s + x, 0) / of.length;

describe("the made-up island and a drive on it", () => {
  it("has more than six hundred roads, all reached from the shop, with hills and curves", () => {
    expect(roads.roads.length).toBeGreaterThan(600);
    expect(new Set(roads.roads.map((r) => r.id)).size).toBe(roads.roads.length);
    expect(JSON.stringify(island())).toBe(JSON.stringify(roads));
    const seen = new Set([home]);
    const next = [home];
    for (let at = next.pop(); at !== undefined; at = next.pop())
      for (const w of network.nodes[at]!.out)
        if (!seen.has(w.to)) {
          seen.add(w.to);
          next.push(w.to);
        }
    expect(seen.size).toBe(network.nodes.length);
    const pieces = network.ways.flatMap((w) => w.pieces);
    expect(Math.max(...pieces.map((p) => Math.abs(p.slopeDeg)))).toBeGreaterThan(2);
    expect(pieces.some((p) => p.radiusM < 150)).toBe(true);
  });
  it("takes the minutes that were planned, and four drives of five are back inside the band", () => {
    for (const hour of [11, 8]) {
      const { plan, gone } = drives(Date.UTC(2026, 10, 3, hour), 200);
      expect(Math.abs(mean(gone.map((g) => g.seconds)) / plan.seconds - 1)).toBeLessThan(0.02);
      const [from, to] = plan.band;
      const inside = gone.filter((g) => g.seconds >= from && g.seconds <= to).length / gone.length;
      // 200 drives of a band of 0.8: three deviations of a share are 0.085.
      expect(Math.abs(inside - 0.8)).toBeLessThan(0.085);
      const done = gone.filter((g) => g.progress.status === "done").length / gone.length;
      expect(Math.abs(done - plan.chance)).toBeLessThan(0.1);
      // Nobody races: what noise adds to a limit stays noise.
      expect(gone.every((g) => g.over === 0)).toBe(true);
    }
  });
  it("learns as often as was planned, through showers as well", () => {
    const { plan, gone } = drives(Date.UTC(2026, 10, 3, 11), 200, { rain: 0.3 });
    const done = gone.filter((g) => g.progress.status === "done").length / gone.length;
    expect(plan.chance).toBeLessThan(0.9);
    expect(Math.abs(done - plan.chance)).toBeLessThan(0.1);
  });
  it("is the same for the same seed, and another for another", () => {
    const departMs = Date.UTC(2026, 10, 3, 11);
    const [a, b] = [drives(departMs, 2).gone, drives(departMs, 2).gone];
    expect(a[0]!.seconds).toBe(b[0]!.seconds);
    expect(a[0]!.progress.cost).toEqual(b[0]!.progress.cost);
    expect(a[0]!.progress.cost).not.toEqual(a[1]!.progress.cost);
  });
});

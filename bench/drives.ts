import { Worker } from "node:worker_threads";
import createGraph from "ngraph.graph";
import { aStar } from "ngraph.path";
import { outlookOn, overWays, type Outlook } from "@/core/drive/expect";
import { distanceM } from "@/core/drive/geometry";
import { nearestNode, networkOf, onward, type Network, type Way } from "@/core/drive/network";
import type { DriveRules } from "@/core/drive/rules";
import { looksOf } from "@/core/drive/look";
import { leastOf } from "@/core/drive/least";
import { soonestLoop } from "@/core/drive/search";
import { randomFrom, type Random } from "@/core/math/random";
import { island, SHOP_PLACE } from "@/demo/data/island";
import { SHEETS } from "@/demo/data/sheets";

const rules = SHEETS.find((s) => s.id === "harrow-forward")!.drive!;
const MORNING = Date.UTC(2026, 10, 3, 8);
const LIMITS = { labels: 400_000, longestS: 7200 };
const hourOfDay = (atMs: number): number => (atMs / 3_600_000) % 24;
const cameras = looksOf("forward-camera");
const hours = (random: Random) =>
  Array.from({ length: 12 }, (_, h) => ({
    fromMs: MORNING + h * 3_600_000,
    rain: Math.max(0, random() - 0.6),
    fog: 0,
    snow: 0,
    wet: 0,
    cloud: random(),
  }));

/**
 * Loops as shortest paths make them: out to one place where it counts, on to another, and home; or to
 * and fro between the two until it is enough. The best of all pairs of some such places.
 */
function byShortestPaths(
  network: Network,
  home: number,
  outlook: Outlook,
  departMs: number,
): number {
  const graph = createGraph<undefined, Way>({ multigraph: true });
  network.nodes.forEach((_, i) => graph.addNode(i));
  for (const w of network.ways) graph.addLink(w.from, w.to, w);
  const path = aStar<undefined, Way>(graph, {
    oriented: true,
    distance: (_a, _b, link) => outlook.way(link.data, departMs).seconds,
  });
  const route = (a: number, b: number): Way[] | null => {
    if (a === b) return [];
    const nodes = path
      .find(a, b)
      .map((n) => Number(n.id))
      .reverse();
    if (nodes.length < 2) return null;
    return nodes.slice(1).map((to, i) => {
      const from = nodes[i]!;
      const ways = network.nodes[from]!.out.filter((w) => w.to === to);
      return ways.reduce((x, y) =>
        outlook.way(y, departMs).seconds < outlook.way(x, departMs).seconds ? y : x,
      );
    });
  };
  // Places where a good road begins, the best ones, spread out.
  const good = network.ways
    .map((w) => ({ w, gain: outlook.way(w, departMs).addsS / outlook.way(w, departMs).seconds }))
    .filter((x) => x.gain > 0.7)
    .sort((a, b) => b.gain - a.gain);
  const places: number[] = [];
  for (const { w } of good) {
    const at = network.nodes[w.from]!.at;
    if (places.every((p) => distanceM(network.nodes[p]!.at, at) > 1200)) places.push(w.from);
    if (places.length === 12) break;
  }
  let best = Infinity;
  for (const a of places)
    for (const b of places) {
      if (a === b) continue;
      const [out, on, back, homeFromA, homeFromB] = [
        route(home, a),
        route(a, b),
        route(b, a),
        route(a, home),
        route(b, home),
      ];
      if (!out || !on || !back || !homeFromA || !homeFromB) continue;
      for (let times = 1; times <= 4; times++) {
        const legs = Array.from({ length: times }, (_, i) => (i % 2 === 0 ? on : back)).flat();
        const ways = [...out, ...legs, ...(times % 2 === 0 ? homeFromA : homeFromB)];
        // Where one may not turn round these loops do not either.
        if (ways.some((w, i) => i > 0 && !onward(network, ways[i - 1]!).includes(w))) continue;
        const come = overWays(outlook, ways, departMs);
        if (come.doneS === null) continue;
        best = Math.min(best, come.seconds);
        break;
      }
    }
  return best;
}

/** Drives: the minutes that are saved against loops of shortest paths, and how long a large map takes. */
export async function drives(requests: number): Promise<void> {
  const network = networkOf(island());
  const home = nearestNode(network, SHOP_PLACE);
  const random = randomFrom(11);
  let [ours, theirs, both, none, bound] = [0, 0, 0, 0, 0];
  const times: number[] = [];
  for (let n = 0; n < requests; n++) {
    const departMs = MORNING + Math.floor(random() * 14) * 1_800_000;
    const asked: DriveRules = { ...rules, enough: { seconds: 240 + random() * 600 } };
    const going = { network, rules: asked, forecast: hours(random), cameras };
    const from = performance.now();
    const loop = soonestLoop(outlookOn(going, hourOfDay), home, departMs, LIMITS);
    times.push(performance.now() - from);
    const other = byShortestPaths(network, home, outlookOn(going, hourOfDay), departMs);
    if (typeof loop !== "string" && Number.isFinite(other)) {
      both++;
      ours += loop.seconds / 60;
      bound += leastOf(outlookOn(going, hourOfDay), home, departMs, LIMITS.longestS).wholeS / 60;
      theirs += other / 60;
    } else if (typeof loop !== "string") none++;
  }
  times.sort((a, b) => a - b);
  console.log(`drives on the island (${network.ways.length} ways), ${requests} requests`);
  console.log(
    `  by the search ${(ours / both).toFixed(1)} min, by loops of shortest paths ${(theirs / both).toFixed(1)} min: ${((theirs - ours) / both).toFixed(1)} min saved a drive; ${none} more that those found no loop for`,
  );
  console.log(`  no drive can be sooner than ${(bound / both).toFixed(1)} min`);
  console.log(
    `  the search takes ${times[times.length >> 1]!.toFixed(0)} ms (median), p95 ${times[Math.floor(times.length * 0.95)]!.toFixed(0)} ms`,
  );
  await onWideMap();
}

/** A large map in a worker of its own, as the page asks it: joined once, then asked for one departure. */
const onWideMap = (): Promise<void> =>
  new Promise((done, fail) => {
    const worker = new Worker(new URL("./wide-map.ts", import.meta.url), {
      execArgv: ["--import", "tsx"],
    });
    worker.on("error", fail);
    worker.on("exit", () => done());
  });

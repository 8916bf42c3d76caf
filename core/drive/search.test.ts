import { describe, expect, it } from "vitest";
import { randomFrom, type Random } from "@/core/math/random";
import {
  LEAVING,
  alongWay,
  outlookOn,
  overWays,
  throughJunction,
  type Come,
  type Outlook,
} from "./expect";
import { looksOf } from "./look";
import { networkOf, onward, type Network, type Way } from "./network";
import { junctionFields, roadFields, type Junction, type Road, type RoadPlace } from "./road";
import { driveRulesSchema } from "./rules";
import { leastOf } from "./least";
import { soonestLoop } from "./search";

const NOON = Date.UTC(2026, 5, 21, 11, 50);
const hourOfDay = (atMs: number): number => (atMs / 3_600_000) % 24;
const pick = <T>(random: Random, of: readonly T[]): T => of[Math.floor(random() * of.length)]!;

/** Up to 12 roads between some places, as chance has it. */
function anyNetwork(random: Random) {
  const places = Array.from({ length: 4 + Math.floor(random() * 3) }, (): RoadPlace => [
    1.9 + random() * 0.03,
    56.4 + random() * 0.015,
  ]);
  const pairs = places.flatMap((_, i) =>
    places.slice(i + 1).map((_, k) => [i, i + 1 + k] as const),
  );
  const kept = pairs.filter((_, n) => n < places.length - 1 || random() < 0.5).slice(0, 12);
  const roads = kept.map(([a, b], n): Road => {
    const line = (kind: "solid" | "broken") => ({
      kind: random() < 0.15 ? ("none" as const) : kind,
      seen: 0.4 + random() * 0.6,
    });
    const fields = roadFields.parse({
      name: `Road ${n}`,
      oneWay: random() < 0.15,
      limitKmh: pick(random, [50, 60, 80, 100]),
      along: { left: line("solid"), right: line("broken") },
      traffic: Array.from({ length: 24 }, () => random() * 0.7),
    });
    return { ...fields, id: `r${n}`, points: [places[a]!, places[b]!] };
  });
  const junctions = places.map((at): Junction => ({
    ...junctionFields.parse({
      control: pick(random, ["none", "signals", "roundabout", "give-way"]),
      redShare: random() * 0.6,
      turnRound: random() < 0.4,
    }),
    at,
  }));
  return networkOf({ roads, junctions });
}

function anyRules(random: Random) {
  const breach = () => (random() < 0.3 ? "throws-away" : "pauses");
  const may = (share: number, condition: object): object[] => (random() < share ? [condition] : []);
  return driveRulesSchema.parse({
    conditions: [
      { kind: "speed", unit: "km/h", min: 45, max: 90, breach: "pauses" },
      { kind: "lines", left: "either", right: "either", breach: "pauses" },
      ...may(0.5, { kind: "rolling", breach: breach() }),
      ...may(0.5, { kind: "gap", minM: 25, breach: "pauses" }),
      ...may(0.5, { kind: "sun", coneDeg: 25, breach: breach() }),
      ...may(0.5, { kind: "weather", without: ["rain"], breach: "pauses" }),
    ],
    enough: random() < 0.7 ? { seconds: 30 + random() * 80 } : { metres: 700 + random() * 1500 },
  });
}

const forecast = (random: Random) =>
  [0, 1, 2].map((h) => ({
    fromMs: NOON - 50 * 60_000 + h * 3_600_000,
    rain: random() * 0.5,
    fog: 0,
    snow: 0,
    wet: random(),
    cloud: random(),
  }));

/** Least seconds from every node to one, at the limit of every road. */
function homeTimes({ nodes, ways }: Network, home: number): number[] {
  const best = nodes.map((_, i) => (i === home ? 0 : Infinity));
  for (const _ of nodes)
    for (const w of ways) {
      const t = w.lengthM / (w.road.limitKmh / 3.6) + best[w.to]!;
      best[w.from] = Math.min(best[w.from]!, t);
    }
  return best;
}

/** Every drive there is, one after another, with nothing left out but what is already too long. */
function everyDrive(outlook: Outlook, home: number, departMs: number, longestS: number): number {
  const { network } = outlook.going;
  const homeS = homeTimes(network, home);
  const { seconds: wantS = 0, metres: wantM = 0 } = outlook.going.rules.enough;
  let best = longestS;
  const on = (way: Way, come: Come): void => {
    const rest =
      come.doneS === null ? Math.max(wantS - come.countS, (wantM - come.countM) / 27.8) : 0;
    if (come.seconds + Math.max(rest, homeS[way.to]!) >= best) return;
    if (way.to === home && come.doneS !== null) {
      best = come.seconds;
      return;
    }
    for (const next of onward(network, way))
      on(
        next,
        alongWay(outlook, throughJunction(outlook, come, way, next, departMs), next, departMs),
      );
  };
  for (const way of network.nodes[home]!.out) on(way, alongWay(outlook, LEAVING, way, departMs));
  return best;
}

/** What of the roads' rules a drive breaks, gone over road by road. */
function brokenRules({ nodes }: Network, ways: readonly Way[]): string[] {
  const broken: string[] = [];
  if (ways[0]!.from !== 0 || ways.at(-1)!.to !== 0) broken.push("not from home to home");
  ways.forEach((w, i) => {
    if (w.back && w.road.oneWay) broken.push(`${w.road.id} against its one way`);
    const next = ways[i + 1];
    if (!next) return;
    if (w.to !== next.from) broken.push(`${w.road.id} does not lead to ${next.road.id}`);
    const others = nodes[w.to]!.out.filter((o) => o.road !== w.road);
    if (next.road === w.road && !nodes[w.to]!.junction.turnRound && others.length > 0)
      broken.push(`turns round on ${w.road.id}`);
  });
  return broken;
}

describe("the soonest drive", () => {
  it("is that of an exhaustive search, on a hundred networks, through changing hours", () => {
    const LONGEST = 900;
    let found = 0;
    for (let n = 0; n < 100; n++) {
      const random = randomFrom(n + 1);
      const network = anyNetwork(random);
      const going = {
        network,
        rules: anyRules(random),
        forecast: forecast(random),
        cameras: looksOf("forward-camera"),
      };
      const outlook = outlookOn(going, hourOfDay);
      const limits = { labels: 1e6, longestS: LONGEST, careful: true };
      const is = soonestLoop(outlook, 0, NOON, limits);
      expect(is).not.toBe("spent");
      const loop = typeof is === "string" ? null : is;
      const best = everyDrive(outlook, 0, NOON, loop?.seconds ?? LONGEST);
      const off = Math.abs((loop?.seconds ?? LONGEST) - best);
      if (loop) {
        found++;
        expect(overWays(outlook, loop.ways, NOON).seconds).toBeCloseTo(loop.seconds, 6);
        expect(brokenRules(network, loop.ways)).toEqual([]);
      }
      expect(off, `network ${n}`).toBeLessThan(1);
      expect(leastOf(outlook, 0, NOON, LONGEST).wholeS).toBeLessThanOrEqual(best + 1e-6);
    }
    expect(found).toBeGreaterThan(60);
  });
});

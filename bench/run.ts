import { cpus } from "node:os";
import { levenbergMarquardt } from "ml-levenberg-marquardt";
import { gaussian, randomFrom } from "@/core/math/random";
import {
  judgeSetOut,
  nextAct,
  rankReadings,
  solveScene,
  solveSetOut,
  type Scene,
  type SetOutEntry,
} from "@/core/setout";
import { adjustNetwork, type Reading, type SurveyNetwork } from "@/core/survey";
import { measure, openBay } from "@/devices/bench/world";
import { planOf } from "@/tests/fixtures";
import { observe, type Truth, valueOf } from "@/tests/independent-solver";
import { camera } from "./camera";
import { bays } from "./bays";
import { days } from "./days";
import { drives } from "./drives";
import { gross } from "./gross";
import { job } from "./job";
import { list } from "./list";
import { pages } from "./page";
import { runs } from "./runs";
import { shop } from "./shop";
import { surround } from "./surround";
import { trials } from "./trials";

/** Median time of one call, milliseconds. */
function median(rounds: number, work: () => unknown): number {
  for (let i = 0; i < Math.min(rounds, 20); i++) work();
  const times = Array.from({ length: rounds }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });
  return times.sort((a, b) => a - b)[rounds >> 1]!;
}

/**
 * Twelve points (six known with a prior, six free floor marks), one stand, thirty readings with
 * noise.
 */
function network(): Omit<SurveyNetwork, "observations"> & { observations: Reading[] } {
  const random = randomFrom(7);
  const known = {
    FL: [2610, 840],
    FR: [2610, -840],
    RL: [0, 836],
    RR: [0, -836],
    BF: [3490, 0],
    BR: [-842, 0],
  };
  const marks = {
    m1: [3900, 1150],
    m2: [3900, -1150],
    m3: [5470, 1150],
    m4: [5470, -1150],
    m5: [3490, 1150],
    m6: [5470, 0],
  };
  const truth: Truth = { stand: [5482, 14, Math.PI + 0.006] };
  for (const [id, [x, y]] of Object.entries({ ...known, ...marks }))
    truth[id] = [x! + 1.2 * gaussian(random), y! + 1.2 * gaussian(random)];
  const net: Omit<SurveyNetwork, "observations"> & { observations: Reading[] } = {
    points: [
      ...Object.entries(known).map(([id, [x, y]]) => ({ id, xMm: x!, yMm: y!, sigmaMm: 1.2 })),
      ...Object.entries(marks).map(([id, [x, y]]) => ({ id, xMm: x! + 8, yMm: y! - 6 })),
    ],
    bodies: [
      {
        id: "stand",
        xMm: 5470,
        yMm: 0,
        headingRad: Math.PI,
        points: [
          { id: "L", xMm: 0, yMm: -1150 },
          { id: "R", xMm: 0, yMm: 1150 },
          { id: "C", xMm: 0, yMm: 0 },
          { id: "A", xMm: 1000, yMm: 0 },
        ],
      },
    ],
    observations: [],
  };
  const add = (
    o:
      | Omit<Extract<Reading, { kind: "distance" }>, "id" | "valueMm">
      | Omit<Extract<Reading, { kind: "offset" | "station" }>, "id" | "valueMm">,
  ): void => {
    const open = { ...o, id: `o${net.observations.length}`, valueMm: 0 } as Reading;
    net.observations.push({
      ...open,
      valueMm: observe(open, net, truth) + o.sigma * gaussian(random),
    } as Reading);
  };
  for (const hub of ["FL", "FR", "RL", "RR"])
    for (const end of ["L", "R"])
      add({ kind: "distance", from: hub, to: `stand.${end}`, sigma: 1.7 });
  for (const m of ["m1", "m2", "m3", "m4", "m5", "m6"]) {
    add({ kind: "offset", point: m, lineFrom: "BR", lineTo: "BF", sigma: 1 });
    add({ kind: "station", point: m, lineFrom: "BR", lineTo: "BF", sigma: 1.5 });
  }
  for (const [a, b] of [
    ["m1", "m2"],
    ["m3", "m4"],
    ["m1", "m4"],
    ["m2", "m3"],
    ["m5", "m3"],
    ["m6", "m1"],
  ] as const)
    add({ kind: "distance", from: a, to: b, sigma: 1.6 });
  add({ kind: "distance", from: "m1", to: "stand.L", sigma: 1 });
  add({ kind: "distance", from: "m2", to: "stand.R", sigma: 1 });
  add({ kind: "offset", point: "BF", lineFrom: "stand.C", lineTo: "stand.A", sigma: 1.6 });
  add({ kind: "station", point: "BF", lineFrom: "stand.C", lineTo: "stand.A", sigma: 2 });
  return net;
}

/**
 * The same least-squares problem for the general package: whitened residuals as a function of all
 * unknowns.
 */
function general(
  net: Omit<SurveyNetwork, "observations"> & { observations: Reading[] },
): () => { parameterValues: number[] } {
  const free = net.points.map((p) => p.id);
  const start = [
    ...net.points.flatMap((p) => [p.xMm, p.yMm]),
    net.bodies[0]!.xMm,
    net.bodies[0]!.yMm,
    net.bodies[0]!.headingRad * 1000,
  ];
  const priors = net.points.flatMap((p, i) =>
    p.sigmaMm ? [2 * i, 2 * i + 1].map((k) => ({ k, at: start[k]!, sigma: p.sigmaMm! })) : [],
  );
  const x = Array.from({ length: net.observations.length + priors.length }, (_, i) => i);
  const y = [
    ...net.observations.map((o) => valueOf(o) / o.sigma),
    ...priors.map((p) => p.at / p.sigma),
  ];
  const model = (q: number[]) => {
    const at: Truth = { stand: [q.at(-3)!, q.at(-2)!, q.at(-1)! / 1000] };
    free.forEach((id, i) => (at[id] = [q[2 * i]!, q[2 * i + 1]!]));
    return (i: number): number => {
      const o = net.observations[i];
      if (o) return observe(o, net, at) / o.sigma;
      const p = priors[i - net.observations.length]!;
      return q[p.k]! / p.sigma;
    };
  };
  return () =>
    levenbergMarquardt({ x, y }, model, {
      initialValues: start,
      damping: 1e-3,
      gradientDifference: 1e-3,
      centralDifference: true,
      maxIterations: 30,
      errorTolerance: 1e-12,
      improvementThreshold: 1e-12,
    });
}

/** Three boards before one car, each on a stand of its own, every reading that a tape can take. */
function scene(): { places: Scene; entries: SetOutEntry[] } {
  const base = planOf(0, 0);
  const places = (["left", "middle", "right"] as const).map((id, i) => ({
    id,
    carrier: id,
    plan: {
      ...base,
      target: {
        ...base.target,
        placement: { ...base.target.placement, acrossMm: 1400 * (1 - i) },
      },
    },
  }));
  const entries = places.flatMap(({ id, plan }) => {
    const world = openBay(`scene-${id}`, plan);
    const sigma = new Map(
      nextAct(solveSetOut(plan, [])).candidates.map((c) => [c.slot.id, c.sigma]),
    );
    return [...sigma.keys(), "tape-fl-l", "tape-fr-r", "height-rule", "laser-badge"].map(
      (slotId, n): SetOutEntry => ({
        kind: "reading",
        id: `${id}-${slotId}-${n}`,
        target: id,
        slotId,
        shown: measure(world, slotId, n),
        sigma: sigma.get(slotId)!,
      }),
    );
  });
  return { places: places as unknown as Scene, entries };
}

const net = network();
const ours = adjustNetwork(net);
const theirs = general(net)();
const apart = Math.max(
  ...net.points.map((p, i) =>
    Math.hypot(
      ours.points[i]!.xMm - theirs.parameterValues[2 * i]!,
      ours.points[i]!.yMm - theirs.parameterValues[2 * i + 1]!,
    ),
  ),
);
const fast = median(400, () => adjustNetwork(net));
const slow = median(15, general(net));

const plan = planOf(0, 0);
const world = openBay("bench", plan);
const sigma = new Map(nextAct(solveSetOut(plan, [])).candidates.map((c) => [c.slot.id, c.sigma]));
const entries = [...sigma.keys()].map((slotId): SetOutEntry => ({
  kind: "reading",
  id: slotId,
  slotId,
  shown: measure(world, slotId, 0),
  sigma: sigma.get(slotId)!,
}));
const judged = nextAct(solveSetOut(plan, entries));

console.log(`${cpus()[0]?.model ?? "unknown processor"}, Node ${process.version}; medians`);
console.log(
  `network: ${net.points.length} points, ${net.bodies.length} body, ${net.observations.length} readings`,
);
console.log(`  adjustNetwork with all statistics        ${fast.toFixed(3)} ms`);
console.log(`  ml-levenberg-marquardt, solution only    ${slow.toFixed(1)} ms`);
console.log(
  `  ratio                                    ${(slow / fast).toFixed(0)} x; solutions ${apart.toExponential(1)} mm apart`,
);
console.log(`set-out: ${entries.length} readings`);
console.log(
  `  solve, judge, rank, next act             ${median(200, () => nextAct(solveSetOut(plan, entries))).toFixed(2)} ms`,
);
console.log(
  `  ranking alone                            ${median(200, () => rankReadings(judged.solution, judged.verdict)).toFixed(2)} ms`,
);

const three = scene();
const known = solveScene(three.places, three.entries);
console.log(`one setup: ${three.places.length} targets, ${three.entries.length} readings`);
console.log(
  `  a reading to every verdict and the next act  ${median(100, () => {
    const { targets } = solveScene(three.places, three.entries);
    for (const s of targets.values()) judgeSetOut(s);
    nextAct(targets.get("middle")!);
  }).toFixed(2)} ms`,
);
console.log(
  `  network of ${known.estimate.adjustment!.joint.order} unknowns alone                 ${median(200, () => adjustNetwork(known.estimate.network)).toFixed(2)} ms`,
);

job(median);
await camera(median);
surround(median);
runs();
gross(500);
trials(500, 60);
await drives(200);
bays(30);
days(20);
await shop(20_000);
await pages();
await list();
process.exit(0); // the vision library keeps a handle open

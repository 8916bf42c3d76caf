import { z } from "zod";
import { baySchema, type Bay } from "@/core/space/bay";
import type { Vec } from "@/core/space/convex";

const box = (x0: number, y0: number, x1: number, y1: number): [number, number][] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
const at = (...places: Vec[]): [number, number][] => places.map(([x, y]) => [x, y]);

/** The two bays of the made-up shop: a long one, and one with a corner cut off by the office. */
export const BAYS: Bay[] = z.array(baySchema).parse([
  {
    id: "bay-1",
    name: "Bay 1",
    outline: box(0, 0, 13_200, 6400),
    doors: [
      [
        [0, 1400],
        [0, 5000],
      ],
    ],
    obstacles: [
      { name: "bench", outline: box(9000, 5800, 12_600, 6400), fromMm: 0, toMm: 950 },
      { name: "tool cabinet", outline: box(12_500, 0, 13_200, 1300), fromMm: 0, toMm: 1800 },
      { name: "pillar", outline: box(6400, 0, 6800, 350), fromMm: 0, toMm: 4000 },
    ],
  },
  {
    id: "bay-2",
    name: "Bay 2",
    outline: at([0, 0], [10_400, 0], [10_400, 3900], [7600, 3900], [7600, 5600], [0, 5600]),
    doors: [
      [
        [0, 900],
        [0, 4500],
      ],
    ],
    obstacles: [
      { name: "glass rack", outline: box(400, 5000, 3200, 5600), fromMm: 0, toMm: 2100 },
      { name: "lift post", outline: box(4200, 0, 4700, 450), fromMm: 0, toMm: 3600 },
      { name: "hose reel", outline: box(8200, 0, 8700, 400), fromMm: 2300, toMm: 2900 },
    ],
  },
]);

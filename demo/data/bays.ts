import { z } from "zod";
import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import { baySchema, type Bay } from "@/core/space/bay";
import type { Vec } from "@/core/space/convex";

const box = (x0: number, y0: number, x1: number, y1: number): [number, number][] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
const at = (...places: Vec[]): [number, number][] => places.map(([x, y]) => [x, y]);

/**
 * A floor as it was read one morning from two places of a line laser: it falls a little toward the
 * door, and has a hollow where cars have stood for years.
 */
function readFloor(
  on: string,
  long: number,
  wide: number,
  fallMmPerM: number,
): NonNullable<Bay["floor"]> {
  const random = randomFrom(seedFrom(`${on}/floor`));
  const [nx, ny] = [Math.round(long / 2000), 3];
  const spots = Array.from({ length: nx * ny }, (_, i) => ({
    xMm: Math.round(((Math.floor(i / ny) + 0.5) * long) / nx),
    yMm: Math.round((((i % ny) + 0.5) * wide) / ny),
  }));
  const height = ({ xMm, yMm }: { xMm: number; yMm: number }): number =>
    (fallMmPerM * xMm) / 1000 -
    3 * Math.exp(-(((xMm - long * 0.4) / 2500) ** 2) - ((yMm - wide / 2) / 1800) ** 2);
  const from = (line: number, which: (i: number) => boolean) => ({
    levelMmPerM: 0.2,
    readMm: 0.5,
    readings: spots.flatMap((s, spot) =>
      which(spot)
        ? [{ spot, mm: Math.round(2 * (line - height(s) + 0.4 * gaussian(random))) / 2 }]
        : [],
    ),
  });
  const middle = Math.floor(nx / 2) * ny;
  return {
    on,
    spots,
    setups: [from(912, (i) => i < middle + ny), from(947, (i) => i >= middle - ny)],
  };
}

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
    lights: [
      {
        name: "skylight strip",
        kind: "window",
        from: [13_200, 2200],
        to: [13_200, 4600],
        covers: true,
      },
    ],
    usualLux: 480,
    floor: readFloor("2026-09-14", 13_200, 6400, 3),
  },
  {
    id: "bay-2",
    name: "Bay 2",
    outline: at([0, 0], [11_800, 0], [11_800, 4200], [7600, 4200], [7600, 6000], [0, 6000]),
    doors: [
      [
        [0, 900],
        [0, 4500],
      ],
    ],
    obstacles: [
      { name: "glass rack", outline: box(400, 5400, 3200, 6000), fromMm: 0, toMm: 2100 },
      { name: "lift post", outline: box(4200, 0, 4700, 450), fromMm: 0, toMm: 3600 },
      { name: "hose reel", outline: box(8200, 0, 8700, 400), fromMm: 2300, toMm: 2900 },
    ],
    likenesses: [{ name: "chequered roll door", from: [9400, 0], to: [11_200, 0] }],
    usualLux: 350,
  },
]);

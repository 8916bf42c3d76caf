import { z } from "zod";
import { isConvex, type Vec } from "./convex";

/** A bay as data: its walls, and what stands and hangs in it. Millimetres, x along its first wall. */
const place = z.tuple([z.number().min(-1e5).max(1e5), z.number().min(-1e5).max(1e5)]);

const crosses = (a: Vec, b: Vec, c: Vec, d: Vec): boolean => {
  const side = (p: Vec, q: Vec, r: Vec): number =>
    (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]);
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
};

/** Whether no wall crosses another. */
const isSimple = (outline: readonly Vec[]): boolean =>
  outline.every((a, i) =>
    outline.every((c, j) => {
      const [b, d] = [outline[(i + 1) % outline.length]!, outline[(j + 1) % outline.length]!];
      return i === j || !crosses(a, b, c, d);
    }),
  );

const obstacleSchema = z.object({
  name: z.string().min(1).max(60),
  /** What it covers of the floor: a shape without a corner that turns inward. */
  outline: z
    .array(place)
    .min(3)
    .max(40)
    .refine(isConvex, "must not turn inward: write an angled thing as two"),
  /** From which height up to which it is there, mm above the floor. */
  fromMm: z.number().min(0).max(10_000).default(0),
  toMm: z.number().min(10).max(20_000).default(3000),
});

export const baySchema = z
  .object({
    id: z.string().regex(/^[a-z0-9-]{1,40}$/, "must be small letters, figures and dashes"),
    name: z.string().min(1).max(60),
    /** Its walls, corner by corner. */
    outline: z.array(place).min(3).max(200).refine(isSimple, "must not cross itself"),
    /** Where a vehicle comes in: from one place of a wall to another. */
    doors: z
      .array(z.tuple([place, place]))
      .max(8)
      .default([]),
    obstacles: z.array(obstacleSchema).max(100).default([]),
  })
  .superRefine(({ obstacles }, ctx) =>
    obstacles.forEach((o, i) => {
      if (o.fromMm >= o.toMm)
        ctx.addIssue({
          code: "custom",
          path: ["obstacles", i, "fromMm"],
          message: "must be below toMm",
        });
    }),
  );
export type Bay = z.infer<typeof baySchema>;

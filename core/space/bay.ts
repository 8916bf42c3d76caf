import { z } from "zod";
import { isConvex, type Vec } from "./convex";

/** A bay as data: its walls, and what stands and hangs in it. Millimetres, x along its first wall. */
const coordinate = z.number().min(-1e5).max(1e5);
const place = z.tuple([coordinate, coordinate]);

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

/** A piece of wall, or a place: it has a name, and goes from one place to another. */
const pieceSchema = z.object({ name: z.string().min(1).max(60), from: place, to: place });

const lightSchema = pieceSchema.extend({
  kind: z.enum(["window", "lamp"]),
  /** The way it shines, degrees to the left of x; null to the left of the way it is drawn. */
  towardDeg: z.number().min(-360).max(360).nullable().default(null),
  /** Half of how wide it shines, degrees; null to all of the room before it. */
  spreadDeg: z.number().min(1).max(90).nullable().default(null),
  /** Whether it can be put off or covered while a camera is set. */
  covers: z.boolean().default(false),
});

/** A floor read by rule under a line laser: spots, and from each place of the laser what was read. */
const floorSchema = z
  .object({
    on: z.iso.date(),
    spots: z
      .array(z.object({ xMm: coordinate, yMm: coordinate }))
      .min(1)
      .max(150),
    setups: z
      .array(
        z.object({
          /** How far its line may lie askew, mm to the metre; and how well a rule is read, mm. */
          levelMmPerM: z.number().min(0.01).max(5),
          readMm: z.number().min(0.05).max(20),
          readings: z
            .array(z.object({ spot: z.number().int().min(0), mm: z.number().min(-2500).max(2500) }))
            .max(300),
        }),
      )
      .max(12),
  })
  .superRefine(({ spots, setups }, ctx) =>
    setups.forEach((s, i) =>
      s.readings.forEach((r, k) => {
        if (r.spot >= spots.length)
          ctx.addIssue({
            code: "custom",
            path: ["setups", i, "readings", k, "spot"],
            message: `must be one of the ${spots.length} spots, counted from 0`,
          });
      }),
    ),
  );

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
    /** Windows and lamps that may fall into a camera. */
    lights: z.array(lightSchema).max(60).default([]),
    /** Parts of walls that a camera could take for a target. */
    likenesses: z.array(pieceSchema).max(60).default([]),
    /** How bright it usually is where the targets stand, lux; null where nobody read it. */
    usualLux: z.number().min(0).max(200_000).nullable().default(null),
    /** How well the ends of its walls are known to be where they are drawn, mm. */
    wallsMm: z.number().min(1).max(500).default(10),
    /** The floor as it was surveyed; null where it was not. */
    floor: floorSchema.nullable().default(null),
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

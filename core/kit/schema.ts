import { z } from "zod";

const sigma = z.number().min(0).max(20);

/** An instrument as the shop describes it. Uncertainties are standard ones: one sigma. */
export const instrumentSchema = z
  .object({
    id: z.string().regex(/^[A-Z0-9-]{2,12}$/, "use capitals, figures and dashes"),
    name: z.string().min(3).max(60),
    kind: z.enum([
      "tape",
      "laser",
      "rule",
      "scale",
      "inclinometer",
      "bubble",
      "plumb",
      "range",
      "wheel-laser",
      "beam-laser",
      "mirror",
      "rig",
      "floor-laser",
    ]),
    /** mm, and mm more for each metre read. */
    sigmaMm: sigma,
    sigmaMmPerM: z.number().min(0).max(10),
    /** For what reads angles, radians. */
    sigmaRad: z.number().min(0).max(0.05),
    /**
     * What one division of a bubble is worth, radians: from five seconds of arc to half a degree.
     */
    divisionRad: z.number().min(2.4e-5).max(0.009).optional(),
    /** Whether it posts what it shows while something is turned. */
    live: z.enum(["no", "posts"]).optional(),
    checkedOn: z.iso.date().nullable(),
    everyDays: z.number().int().min(1, "is at least a day").max(1500),
  })
  .superRefine((i, ctx) => {
    const reads = i.kind === "inclinometer" || i.kind === "bubble" ? "sigmaRad" : "sigmaMm";
    if (i.kind === "bubble" && i.divisionRad === undefined)
      ctx.addIssue({
        code: "custom",
        path: ["divisionRad"],
        message: "is printed on the vial, or found by tilting it a known amount",
      });
    if (i[reads] === 0)
      ctx.addIssue({
        code: "custom",
        path: [reads],
        message: "cannot be nothing: no instrument is without error",
      });
  });

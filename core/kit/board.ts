import { z } from "zod";

/** A board or mat of the shop, as its label says. */
export const boardSchema = z.object({
  code: z.string().regex(/^[A-Z0-9-]{3,16}$/, "use capitals, figures and dashes"),
  name: z.string().min(3).max(80),
  /** Where it may hang: boards for one side only carry it on the label. */
  side: z.enum(["either", "left", "right"]),
  version: z.number().int().min(1),
  widthMm: z.number().min(100).max(6000),
  condition: z.enum(["good", "worn", "out of use"]),
  /** Who has it, where it is lent out, and when it is to be back. */
  lentTo: z.string().trim().max(80).nullish(),
  backOn: z.iso.date().nullish(),
});
export type Board = z.infer<typeof boardSchema>;

import { z } from "zod";
import {
  appliesTo1,
  ask1,
  board1,
  datum,
  distanceFrom1,
  id,
  method1,
  placement1,
  readyItem1,
  say,
  source,
  step1,
  tolerance,
  upright,
} from "./parts";

/**
 * Sheets as they were written first: one board, and places it goes to later. Records made of them
 * stay as they were made; sheets are read through `upcastSheet`.
 */
export const sheet1Schema = z.object({
  format: z.literal("iridel.sheet/1"),
  id,
  version: z.number().int().min(1),
  title: z.string().min(3).max(120),
  source,
  appliesTo: appliesTo1,
  /** One sentence a customer understands: why this is owed. */
  reason: say,
  kind: method1,
  datum,
  distanceFrom: distanceFrom1,
  board: board1,
  placement: placement1,
  upright,
  /** Places after the first, in any number: another offset, another distance, a second board. */
  positions: z
    .array(
      z.object({
        id,
        name: say,
        placement: placement1,
        board: board1.optional(),
        /** The boards of the places before stay where they stand; another stand carries this one. */
        beside: z.literal(true).optional(),
      }),
    )
    .max(6)
    .optional(),
  tolerance,
  cautions: z.array(say),
  ready: z.array(readyItem1),
  run: z.array(step1).min(1),
  prove: z.array(ask1),
});

import { z } from "zod";
import { STRAIGHT_M } from "./log";

const int = z.number().int();
const known = <T extends z.ZodType>(of: T) => of.nullable();

/** A row as it is kept: see {@link packed}. */
export const driveRow = z.tuple([
  int.min(0).max(36_000),
  known(int.min(0).max(12_000)),
  known(int.min(0).max(2)),
  known(int.min(0).max(2)),
  known(int.min(0).max(STRAIGHT_M)),
  known(int.min(-1).max(2000)),
  known(int.min(0).max(2)),
  known(int.min(0).max(15)),
  known(int.min(0).max(1800)),
  known(int.min(0).max(1)),
  known(int.min(-180_000_000).max(180_000_000)),
  known(int.min(-90_000_000).max(90_000_000)),
  known(int.min(0).max(1)),
]);

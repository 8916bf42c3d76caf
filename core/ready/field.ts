import type { Quantity, UnitId } from "@/core/units";

/** One number to be read for a readiness item. */
export type Field = {
  id: string;
  name: string;
  quantity: Quantity;
  unit: UnitId | "share" | "tyre";
  /** Where on the floor plan it is read, vehicle axes; null for numbers of the whole car. */
  at: { xMm: number; yMm: number } | null;
  /** For tyre markings: those to be expected here, the maker's own first. */
  markings?: string[];
  /** Readiness can be judged without it. */
  optional?: boolean;
  /** Decimals it is typed with, where one is too few. */
  decimals?: number;
};

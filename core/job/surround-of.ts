import type { Surround } from "@/core/surround/cause";
import { surroundMounts } from "@/core/vehicle/sensors";
import type { Vehicle } from "@/core/vehicle";

/** A vehicle's surround view as its book has it. */
export const surroundOf = (v: Vehicle): Surround => ({
  car: {
    frontMm: v.wheelbaseMm + v.frontOverhangMm,
    rearMm: v.wheelbaseMm + v.frontOverhangMm - v.lengthMm,
    leftMm: v.widthMm / 2,
    rightMm: -v.widthMm / 2,
  },
  cameras: surroundMounts(v).mounts,
});

import { describe, expect, it } from "vitest";
import { gaussian, randomFrom } from "@/core/math/random";
import { seamFields } from "@/core/ready/seam-fields";
import { judgeFully } from "@/core/ready";
import { slotsFor } from "@/core/setout";
import { CORNERS, learnedRig, stepsOf } from "@/core/surround";
import { vehiclePoints } from "@/core/vehicle";
import { SHEETS } from "@/demo/data/sheets";
import { SURROUND } from "@/demo/data/surround";
import { VEHICLES } from "@/demo/data/vehicles";
import { layDown, matReading, shoved } from "@/devices/bench/mat-sim";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import { intakeSchema, viewOf, type EventBody } from ".";
import { matsNow, seamCauses, stepsAhead } from "./seams";
import { planFor } from "./set-out";
import { surroundOf } from "./surround-of";

const forward = SHEETS.find((s) => s.id === "tarn-forward")!;
const one = groundOf(intakeSchema.parse(INTAKE), 2, forward);
const vehicle = VEHICLES.find((v) => v.id === "brannoch-tarn")!;
const ground = {
  ...one,
  vehicle,
  calibrations: [...one.calibrations, { id: SURROUND.id, sheet: SURROUND, stand: one.stand }],
};
const view = viewOf(ground, SURROUND.id);
const RIGHT = [26, -14, 0.009] as const;
const FORM = { aheadMm: 1300, lengthMm: 5600, widthMm: 900 };
const wanted = (side: 1 | -1) => layDown(vehicle.wheelbaseMm, 1500 * side, 0);
const bodies = { "mat-left": wanted(1), "mat-right": shoved(wanted(-1), ...RIGHT) };

/** Both mats read all round, as tapes and laser of the world show them. */
function readAll(): EventBody[] {
  const random = randomFrom(5);
  const points = vehiclePoints(vehicle);
  const place = (id: string) => {
    const p = points.find((q) => q.id === id)!;
    return { xMm: p.xMm, yMm: p.yMm, zMm: vehicle.hubHeightMm };
  };
  return (["mat-left", "mat-right"] as const).flatMap((targetId) => {
    const side = targetId === "mat-left" ? 1 : -1;
    const mate = targetId === "mat-left" ? "mat-right" : "mat-left";
    return slotsFor(planFor(view, [], targetId)).flatMap((slot): EventBody[] => {
      const instrument = view.instruments.find((i) => i.kind === slot.instrument)!;
      const shown = matReading(slot.id, bodies[targetId], { ...FORM, side }, place, {
        body: bodies[mate],
        shape: { ...FORM, side: -side as 1 | -1 },
      });
      const of = { calibrationId: SURROUND.id, targetId, slotId: slot.id };
      return [
        {
          kind: "reading",
          ...of,
          typed: "",
          shown: shown + gaussian(random),
          sigma: 1,
          instrumentId: instrument.id,
        },
      ];
    });
  });
}

describe("mats and seams of a job", () => {
  const events = logOf(view, ...readAll());

  it("knows from the job's one estimate how the mats lie, and what steps they would make", () => {
    const { mats, mean, covariance } = matsNow(view, events);
    const truth = [0, 0, 0, ...RIGHT];
    truth.forEach((t, i) =>
      expect(Math.abs(mean[i]! - t), String(i)).toBeLessThan(4 * Math.sqrt(covariance[i]![i]!)),
    );
    // They share the wheels they were read from.
    expect(Math.abs(covariance[0]![3]!)).toBeGreaterThan(0.1);
    const rig = learnedRig(surroundOf(vehicle), mats, {
      "mat-right": { xMm: RIGHT[0], yMm: RIGHT[1], headingRad: RIGHT[2] },
    });
    const [made, ahead] = [stepsOf(rig, surroundOf(vehicle).car), stepsAhead(view, events)];
    for (const c of CORNERS) {
      const { along, across } = ahead[c];
      expect(Math.abs(along.meanMm - made[c].alongMm)).toBeLessThan(4 * along.sigmaMm + 0.2);
      expect(Math.abs(across.meanMm - made[c].acrossMm)).toBeLessThan(4 * across.sigmaMm + 0.2);
      expect(along.sigmaMm).toBeLessThan(6);
    }
    // Nothing read: an eye's error, and no step in the mean.
    const blind = stepsAhead(view, []);
    expect(blind["front-left"].along.sigmaMm).toBeGreaterThan(ahead["front-left"].along.sigmaMm);
    expect(Math.abs(blind["front-left"].along.meanMm)).toBeLessThan(0.01);
  });

  it("weighs what was typed of the picture, and judges it against the sheet", () => {
    const typed = Object.fromEntries(
      seamFields()
        .filter((f) => !f.optional)
        .map((f) => [f.id, 0]),
    );
    const seams = { kind: "seams", limitMm: 25 } as const;
    expect(judgeFully(seams, {}, vehicle)).toMatchObject({ ok: null });
    expect(judgeFully(seams, typed, vehicle)).toMatchObject({
      ok: true,
      headline: "every line runs through its seam",
    });
    const off = { ...typed, "front-left-along": 80, "rear-left-along": 200 };
    expect(judgeFully(seams, off, vehicle)).toMatchObject({
      ok: false,
      headline: "rear left, lines across: a step of 200 mm forward",
    });
    expect(judgeFully(seams, { ...typed, "bent-rear": 1 }, vehicle)).toMatchObject({
      ok: false,
      headline: "lines are bent in the rear picture",
    });
    const { groups, fits } = seamCauses(view, events, off);
    expect(fits).toBe(true);
    expect(groups[0]!.causes[0]!.cause).toEqual({ kind: "camera", side: "left", part: "left" });
  });
});

import { meaningOf, type MirrorScene } from "@/core/mirror";
import { nominalTarget, sideOf, type SetOutSolution } from "@/core/setout";
import type { Sheet } from "@/core/sheet";
import { degToRad, formatNumber, radToDeg } from "@/core/units";
import { sideCameras } from "@/core/vehicle";
import { isRead, MeaningTable, useLengths } from "./rows";

/** How far a mark may be off by a slip of the tape, mm. */
const SLIP_MM = 30;
/** A body this long is looked along where nothing says how long it is, mm. */
const BODY_MM = 12_000;

/** What a floor mark that lies wrong does to the driver who looks at the display. */
export function MirrorMeaning({ s, sheet }: { s: SetOutSolution; sheet: Sheet }) {
  const { mm, far } = useLengths();
  const { vehicle, target } = s.plan;
  const side = sideOf(target) > 0 ? "left" : "right";
  const step = sheet.run.find((x) => x.kind === "aim" && x.mark === target.id);
  const camera = sideCameras(vehicle).find((c) => c.side === side)?.sensor;
  if (step?.kind !== "aim" || !camera)
    return (
      <p className="text-lg">
        The vehicle’s book has no camera at this side: enter it under Vehicles, and what an error
        would do can be worked out.
      </p>
    );
  const place = nominalTarget(s.plan);
  const scene: MirrorScene = {
    camera,
    mark: { xMm: place.xMm, yMm: place.yMm, zMm: 0 },
    divisionRad: degToRad(step.scale.divisionDeg),
    wanted: step.at,
    most: step.scale.most,
    flankMm: (sideOf(target) * vehicle.widthMm) / 2,
    trailerEndMm: Math.min(
      vehicle.wheelbaseMm + vehicle.frontOverhangMm - vehicle.lengthMm,
      vehicle.wheelbaseMm - BODY_MM,
    ),
  };
  const row = (name: string, ahead: number, left: number, now = false) => {
    const m = meaningOf(scene, { ahead, left });
    return {
      case: name,
      now,
      figures: [
        `${mm(m.blindMm)} ${Math.abs(m.blindMm) < 0.5 ? "" : m.blindMm > 0 ? "longer" : "shorter"}`,
        `${far(m.endLineMm)} ${Math.abs(m.endLineMm) < 5 ? "" : m.endLineMm > 0 ? "too far back" : "too near"}`,
        `${formatNumber(Math.abs(radToDeg(m.headingRad)), 2)}° · ${formatNumber(Math.abs(radToDeg(m.downRad)), 2)}°`,
      ],
    };
  };
  const out = sideOf(target);
  const now = isRead(s) ? [row("as it is drawn now", s.aim!.alongMm, s.aim!.acrossMm, true)] : [];
  const name = (v: number): string => mm(v);
  return (
    <>
      <p className="mb-4 max-w-[70ch] text-lg leading-snug">
        The camera is aimed at the mark as if it lay right. What the driver then sees is worked out
        from the display’s own projection: where the ground along the body first comes into the
        picture, and where the line for the end of the body lies on the ground.
      </p>
      <MeaningTable
        columns={["Blind strip", "End line", "Aim off, across · up"]}
        rows={[
          ...now,
          row(`${name(SLIP_MM)} outward`, 0, out * SLIP_MM),
          row(`${name(SLIP_MM)} inward`, 0, -out * SLIP_MM),
          row(`${name(SLIP_MM)} too far back`, -SLIP_MM, 0),
          row(`${name(10 * SLIP_MM)} too far back`, -10 * SLIP_MM, 0),
        ]}
      />
      <p className="mt-4 text-base text-soft">
        End line for a body that ends {far(scene.trailerEndMm - vehicle.wheelbaseMm)} behind the
        front axle. The maker’s own picture may be cut otherwise.
      </p>
    </>
  );
}

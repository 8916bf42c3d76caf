import { radarError, radarOff } from "@/core/guide";
import { nominalTarget, scalarErrors, type SetOutSolution } from "@/core/setout";
import { formatNumber, radToDeg } from "@/core/units";
import { isRead, MeaningTable, useLengths } from "./rows";

/** Behind the grille, where the vehicle's book does not say, mm. */
const BEHIND_GRILLE_MM = 120;
const AT_MM = [30_000, 60_000, 100_000];
const SLIP = { asideMm: 20, heightMm: 15 };
/** Half the width of a lane, mm: beyond it the radar watches the next one. */
const HALF_LANE_MM = 1750;

/** Where a radar puts the car ahead that was shown a reflector in the wrong place. */
export function RadarMeaning({ s }: { s: SetOutSolution }) {
  const { mm, far } = useLengths();
  const { vehicle, target } = s.plan;
  const place = nominalTarget(s.plan);
  const wanted = { xMm: place.xMm, yMm: place.yMm, zMm: target.placement.heightMm };
  const radar = vehicle.sensors?.find((x) => x.system === "front-radar") ?? {
    xMm: vehicle.wheelbaseMm + vehicle.frontOverhangMm - BEHIND_GRILLE_MM,
    yMm: 0,
    zMm: target.placement.heightMm,
  };
  const row = (name: string, left: number, up: number, now = false) => {
    const e = radarError(radar, wanted, {
      ...wanted,
      yMm: wanted.yMm + left,
      zMm: wanted.zMm + up,
    });
    return {
      case: name,
      now,
      figures: [
        ...AT_MM.map((at) => {
          const { leftMm } = radarOff(e, at);
          const over = Math.abs(leftMm) > HALF_LANE_MM ? ", the next lane" : "";
          return Math.abs(leftMm) < 5
            ? far(0)
            : `${far(leftMm)} ${leftMm > 0 ? "left" : "right"}${over}`;
        }),
        `${formatNumber(Math.abs(radToDeg(e.pitchRad)), 2)}°${Math.abs(e.pitchRad) < 1e-4 ? "" : e.pitchRad > 0 ? " up" : " down"}`,
      ],
    };
  };
  const height = scalarErrors(s).find((q) => q.id === "height")?.error ?? 0;
  return (
    <>
      <p className="mb-4 max-w-[70ch] text-lg leading-snug">
        The radar takes the reflector for where it should stand. Whatever drives ahead is then put
        aside by the same angle.
      </p>
      <MeaningTable
        columns={[...AT_MM.map((at) => `Car ${at / 1000}\u00a0m ahead`), "Beam"]}
        rows={[
          ...(isRead(s) ? [row("as it stands now", s.aim!.acrossMm, height, true)] : []),
          row(`${mm(SLIP.asideMm)} to vehicle left`, SLIP.asideMm, 0),
          row(`${mm(SLIP.asideMm)} to vehicle right`, -SLIP.asideMm, 0),
          row(`${mm(SLIP.heightMm)} too high`, 0, SLIP.heightMm),
        ]}
      />
      <p className="mt-4 text-base text-soft">
        What the road adds, and what the radar learns while it drives, comes on top.
      </p>
    </>
  );
}

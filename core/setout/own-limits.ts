import type { Draft } from "@/core/book";
import { ownTolerance, type OwnLimit, type Target } from "@/core/sheet";
import type { Vehicle } from "@/core/vehicle";
import { roadSetting } from "./road";

type Loose = { [K in keyof Target]?: unknown } & {
  placement?: Partial<Target["placement"]>;
  object?: Partial<Target["object"]>;
  tolerance?: Record<string, number>;
  ownLimit?: Partial<OwnLimit>;
};
type LooseSetup = { targets?: Loose[] };

/** What a target has to say before its place before a camera is known. */
const isPlaced = (t: Loose): t is Loose & Pick<Target, "placement" | "object"> =>
  [
    t.placement?.alongMm,
    t.placement?.acrossMm,
    t.placement?.twistDeg,
    t.placement?.heightMm,
    t.object?.widthMm,
  ].every((v) => typeof v === "number" && Number.isFinite(v));

const FOUR = ["alongMm", "acrossMm", "twistDeg", "heightMm"] as const;

/** The limits of one target from what the road may be off; itself while something is lacking. */
function derived(target: Loose, vehicles: readonly Vehicle[]): Loose {
  const { laneMm, rangeMm } = target.ownLimit ?? {};
  if (!laneMm || !rangeMm || vehicles.length === 0 || !isPlaced(target)) return target;
  const seen = vehicles.map((vehicle) => {
    // Toe turns the whole line by tenths of a degree: the board keeps its place before the camera.
    const { camera, board } = roadSetting({
      vehicle,
      target: target as Target,
      rearToe: { leftRad: 0, rightRad: 0 },
    });
    const whole = Math.round;
    return {
      cameraHeightMm: whole(camera.zMm),
      aheadMm: whole(board.aheadMm),
      leftMm: whole(board.leftMm),
    };
  });
  const own = { laneMm, rangeMm, seen };
  const all = ownTolerance(own, target.placement.heightMm, target.object.widthMm);
  const asked = (["pitchDeg", "rollDeg"] as const).filter(
    (part) => target.upright === "vehicle-plane" || target.tolerance?.[part] !== undefined,
  );
  const tolerance = Object.fromEntries([...FOUR, ...asked].map((part) => [part, all[part]]));
  return { ...target, ownLimit: own, tolerance };
}

/**
 * A draft whose limits of the road's own follow what else is written in it: a board farther away, or
 * for another vehicle, may stand otherwise. What is not yet complete stays as it is.
 *
 * @param vehicles the shop's vehicles, newest versions
 */
export function followOwnLimits(doc: Draft, vehicles: readonly Vehicle[]): Draft {
  const setups = Array.isArray(doc.setups) ? (doc.setups as LooseSetup[]) : [];
  if (!setups.some((s) => s.targets?.some((t) => t.ownLimit))) return doc;
  const named = (doc.appliesTo as { vehicles?: unknown } | undefined)?.vehicles;
  const mine = vehicles.filter((v) => Array.isArray(named) && named.includes(v.id));
  return {
    ...doc,
    setups: setups.map((s) => ({ ...s, targets: s.targets?.map((t) => derived(t, mine)) })),
  };
}

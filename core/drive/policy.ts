/** How a speed is kept: by cruise control, under a limiter, or by foot. */
export const KEEPS = { cruise: "Cruise control", limiter: "Limiter", foot: "By foot" } as const;
export type Keeps = keyof typeof KEEPS;
export const keepsIds = Object.keys(KEEPS) as Keeps[];

/** The shop's school of driving: how a speed may be kept, and what it does when it rains. */
export type DrivePolicy = { keeps: Keeps[]; rain: "refused" | "with-reason" };
export const ANY_DRIVE: DrivePolicy = { keeps: keepsIds, rain: "with-reason" };

/** How a speed may be kept on a drive: as the sheet says; where it says nothing, as the shop does. */
export const mayKeep = (sheet: readonly Keeps[] | undefined, policy: DrivePolicy): Keeps[] =>
  keepsIds.filter((k) => (sheet ?? policy.keeps).includes(k));

/** What is told of a departure. */
export type Leaving = {
  drove: string;
  keeps: Keeps | null;
  hotspot: boolean;
  rains: boolean;
  /** Why it is driven in rain all the same. */
  rainReason: string;
};

/**
 * What stands against leaving now, with its remedy; null where nothing does.
 *
 * @param needs whether the vehicle's gateway hangs on the network; what the sheet and the shop allow
 */
export function leavingProblem(
  leaving: Leaving,
  needs: { gateway: boolean; keeps: readonly Keeps[] | undefined; policy: DrivePolicy },
): string | null {
  if (leaving.drove.trim().length < 2) return "Say who drives.";
  if (needs.gateway && !leaving.hotspot)
    return "This vehicle’s gateway hangs on the network: without a hotspot its session ends on the way, and the drive was for nothing. Take one, switch it on, and tick it.";
  const allowed = mayKeep(needs.keeps, needs.policy);
  if (leaving.keeps === null) return "Say how the speed is kept.";
  if (!allowed.includes(leaving.keeps))
    return `Speed: ${needs.keeps ? "the sheet" : "the shop"} allows ${allowed.map((k) => KEEPS[k].toLowerCase()).join(" or ")}.`;
  if (!leaving.rains) return null;
  if (needs.policy.rain === "refused")
    return "It rains, and this shop does not drive to learn in rain. Wait for a dry hour.";
  return leaving.rainReason.trim().length < 3
    ? "It rains: say why it is driven all the same. It stands on the report."
    : null;
}

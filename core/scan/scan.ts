import type { SystemId } from "@/core/owed";

/** One stored fault: the shop's stand-in speaks its own made-up codes. */
export type FaultCode = { code: string; state: "stored" | "pending" | "history"; text: string };

/** One control unit as a scan met it. */
export type ModuleReading = {
  id: string;
  name: string;
  system: SystemId | null;
  answers: boolean;
  codes: FaultCode[];
};

/**
 * Whether a unit that does not answer is missed: one of a system that this very vehicle was not built
 * with is not.
 *
 * @param fitted systems this very vehicle has
 */
export const isMissed = (
  { answers, system }: Pick<ModuleReading, "answers" | "system">,
  fitted: readonly SystemId[],
): boolean => !answers && (system === null || fitted.includes(system));

/** What a scan tool did on a vehicle outside the routine. */
export type ScanEvent = { at: string } &
  /** `vin`: of the vehicle the tool is plugged into, as its units have it. */
  (
    | { type: "read"; volts: number; modules: ModuleReading[]; vin?: string }
    | { type: "volts"; volts: number }
    | { type: "cleared"; volts: number }
    /** `vin`: of the other vehicle the tool is plugged into, where that is why. */
    | { type: "refused"; what: "read" | "clear"; reason: string; vin?: string }
    /** A unit tested itself for an item of Prove; `told`: on the shop's own tool, which tells nobody. */
    | { type: "self-test"; itemId: string; passed: boolean; says: string; told?: true }
    /**
     * The gateway's lock: reading is always allowed, writing only while signed in over the network.
     */
    | { type: "gateway"; state: "signed-in" | "refused" | "lost"; reason: string | null }
  );

export type ScanState = {
  /** Where the gateway's session stands; "none" for a vehicle without one. */
  gateway: "none" | "locked" | "open";
  /** The first reading of the job: what was there before. */
  baseline: Extract<ScanEvent, { type: "read" }> | null;
  last: Extract<ScanEvent, { type: "read" }> | null;
  voltsLog: { atS: number; volts: number }[];
  /** The last refusal or loss, until something succeeded after it. */
  trouble: string | null;
};

/**
 * The state after a whole log. @param hasGateway whether this vehicle locks writing behind a
 * sign-in
 */
export function scanState(log: readonly ScanEvent[], hasGateway: boolean): ScanState {
  const start: ScanState = {
    gateway: hasGateway ? "locked" : "none",
    baseline: null,
    last: null,
    voltsLog: [],
    trouble: null,
  };
  return log.reduce((s, e): ScanState => {
    const voltsLog =
      "volts" in e ? [...s.voltsLog, { atS: Date.parse(e.at) / 1000, volts: e.volts }] : s.voltsLog;
    switch (e.type) {
      case "read":
        return { ...s, voltsLog, last: e, baseline: s.baseline ?? e, trouble: null };
      case "volts":
        return { ...s, voltsLog };
      case "cleared":
        return { ...s, voltsLog, trouble: null };
      case "self-test":
        return s;
      case "refused":
        return { ...s, trouble: e.reason };
      case "gateway":
        return {
          ...s,
          gateway: e.state === "signed-in" ? "open" : s.gateway === "none" ? "none" : "locked",
          trouble: e.reason,
        };
    }
  }, start);
}

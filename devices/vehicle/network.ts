import { randomFrom, seedFrom } from "@/core/math/random";
import { SYSTEMS, type SystemId } from "@/core/owed";
import type { FaultCode, ModuleReading } from "@/core/scan";
import { DeviceRefusal } from "../scan-tool/scan-tool";
import type { BenchWorld } from "../bench/world";

/** What the stand-in has to know of the job to answer as the vehicle would. */
export type NetworkState = {
  volts: number;
  /** Whether the gateway's session is open; always true for a vehicle without a gateway. */
  open: boolean;
  /** Systems whose aim was lost by the work, and those of them that have learned it since. */
  lost: readonly SystemId[];
  learned: readonly SystemId[];
  /** Those that believe what they learned only once it was driven; and whether it was. */
  provesOnRoad: readonly SystemId[];
  driven: boolean;
  /** Whether codes were cleared since they were first read, and since the last of them learned. */
  cleared: boolean;
  /** Systems this kind of vehicle may have and this very one has not: their units never answer. */
  without: readonly SystemId[];
};

/** Below this a control unit or two fall asleep. */
const SLEEPY_VOLTS = 11.9;

const COMMON = [
  { id: "engine", name: "Engine" },
  { id: "brakes", name: "Brakes" },
  { id: "steering", name: "Steering" },
  { id: "body", name: "Body and doors" },
  { id: "gateway", name: "Gateway" },
];

/** How the codes of a unit begin whose camera or radar has lost its aim. */
const AIM_CODES: Partial<Record<SystemId, string>> = {
  "forward-camera": "FC",
  "surround-view": "SV",
  "mirror-camera": "MC",
  "side-camera": "SC",
  "rear-camera": "RC",
  "trailer-camera": "TC",
  "front-radar": "FR",
};

const FORGOTTEN: FaultCode = {
  code: "ST-058",
  state: "pending",
  text: "End stops of the steering not learned",
};

const SPORADIC: Record<string, FaultCode> = {
  body: { code: "BD-212", state: "history", text: "Door contact, rear right, sporadic" },
  engine: { code: "EN-087", state: "history", text: "Supply voltage low, once" },
  brakes: { code: "BR-140", state: "pending", text: "Wheel speed, rear left, implausible once" },
};

/** Reads every control unit: which answer, and what they have stored. */
export function readModules(world: BenchWorld, state: NetworkState): ModuleReading[] {
  const random = randomFrom(seedFrom(`${world.seed}/modules`));
  const dead = random() < 0.2 ? COMMON[1 + Math.floor(random() * 3)]!.id : null;
  const forgets = randomFrom(seedFrom(`${world.seed}/end-stops`))() < 0.4;
  const sleepy = state.volts < SLEEPY_VOLTS ? ["body", "steering"] : [];
  const fitted = world.plan.vehicle.fitted.map((f) => ({
    id: f.system,
    name: SYSTEMS[f.system],
    system: f.system,
  }));
  return [...COMMON.map((m) => ({ ...m, system: null })), ...fitted].map((m) => {
    const has = m.system === null || !state.without.includes(m.system);
    const answers = has && m.id !== dead && !sleepy.includes(m.id);
    const codes: FaultCode[] = [];
    const prefix = m.system && AIM_CODES[m.system];
    const learned = m.system !== null && state.learned.includes(m.system);
    if (answers && prefix && state.lost.includes(m.system!) && !(learned && state.cleared))
      codes.push({
        code: `${prefix}-031`,
        state: learned ? "history" : "stored",
        text: "Aim not learned",
      });
    if (answers && prefix && learned && state.provesOnRoad.includes(m.system!) && !state.driven)
      codes.push({
        code: `${prefix}-047`,
        state: "pending",
        text: "Learned, not yet proved on the road",
      });
    // What a clearing throws away some units want to learn again: that says so until it has driven.
    if (answers && m.id === "steering" && state.cleared && forgets) codes.push(FORGOTTEN);
    const old = SPORADIC[m.id];
    if (answers && old && !state.cleared && random() < 0.35) codes.push(old);
    return { ...m, answers, codes };
  });
}

/** Clears codes. @throws DeviceRefusal while the gateway is locked or the supply is too low */
export function clearCodes(state: NetworkState): void {
  if (!state.open)
    throw new DeviceRefusal("The gateway refuses to clear: sign in over the network first.");
  if (state.volts < SLEEPY_VOLTS)
    throw new DeviceRefusal("The supply is too low to clear safely. Put the maintainer on first.");
}

/**
 * Opens the gateway's session.
 *
 * @param registered whether the shop's registration with the maker still runs
 * @throws DeviceRefusal without one, and now and then, as such services do
 */
export function signInToGateway(world: BenchWorld, tries: number, registered = true): void {
  if (!registered)
    throw new DeviceRefusal(
      "The maker's service does not know this shop any more. Renew the registration, and write its new end down under Kit.",
    );
  if (randomFrom(seedFrom(`${world.seed}/gateway/${tries}`))() < 0.2)
    throw new DeviceRefusal(
      "The maker's service did not answer. Check the network, then sign in again.",
    );
}

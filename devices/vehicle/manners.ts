import type { SystemId } from "@/core/owed";
import type { Ignition } from "../scan-tool/scan-tool";

/**
 * How the units of the made-up vehicles behave, beside what they see: what each wants before it looks,
 * how strict it is, how long it waits, and what it does when it has learned. Nothing of this stands in
 * the product's book: a sheet has to say it, or the vehicle will.
 */
export type Manners = {
  /** In what the tool of its maker counts lengths. */
  counts: "mm" | "cm" | "in";
  /** Its own limits against those of a usual unit: below 1 stricter, above 1 laxer. */
  limits: number;
  /** What the engine has to do while it looks. */
  engine: "any" | "off" | "running";
  /** How its headlamps have to be. */
  lamps: "any" | "on" | "off";
  /** Its routine shows only after it was left once and entered again. */
  twice: boolean;
  /** Buttons are held before it enters. */
  buttons: boolean;
  /** What it has learned it believes only once it was driven, and keeps a code until then. */
  provesOnRoad: boolean;
  /** Below this supply it starts nothing, volts of one battery. */
  leastVolts: number;
  /** A tool that is silent for so long is let go, minutes. */
  sleepsAfterMinutes: number;
  /** The angles its camera has stored can be read before it learns. */
  tellsStored: boolean;
};

const USUAL: Manners = {
  counts: "mm",
  limits: 1,
  engine: "any",
  lamps: "any",
  twice: false,
  buttons: false,
  provesOnRoad: false,
  leastVolts: 11.8,
  sleepsAfterMinutes: 45,
  tellsStored: true,
};

/** What is not as usual, by maker and system. */
const OWN: Record<string, Partial<Record<SystemId, Partial<Manners>>>> = {
  "norvane-lisse": {
    "forward-camera": { counts: "in", engine: "off" },
  },
  "norvane-cirrin": {
    "front-radar": { counts: "in", limits: 0.8, buttons: true },
  },
  "tesmar-harrow": {
    "forward-camera": { provesOnRoad: true, leastVolts: 12 },
  },
  "tesmar-hauler": {
    "mirror-camera": { limits: 1.2, sleepsAfterMinutes: 90 },
  },
  "tesmar-longhaul": {
    "mirror-camera": { limits: 0.85, engine: "off" },
  },
  "brannoch-tarn": {
    "forward-camera": { limits: 0.85 },
    "surround-view": { limits: 1.2 },
  },
  "brannoch-fell": {
    "surround-view": { provesOnRoad: true },
    "front-radar": { engine: "off", sleepsAfterMinutes: 30 },
  },
  "ardvale-sandling": {
    "forward-camera": { counts: "cm", lamps: "on", tellsStored: false },
  },
  "ardvale-motto": {
    "rear-camera": { counts: "cm", lamps: "off" },
    "side-camera": { counts: "cm", limits: 1.1 },
    "trailer-camera": { counts: "cm", leastVolts: 12 },
  },
  "skarle-wander": {
    "trailer-camera": { sleepsAfterMinutes: 20 },
  },
  "keld-carrier": {
    "rear-camera": { engine: "running" },
    "side-camera": { twice: true },
  },
};

/** How one unit of one kind of vehicle behaves; as usual where it is not one of the made-up ones. */
export const mannersOf = (vehicleId: string, system: SystemId): Manners => ({
  ...USUAL,
  ...OWN[vehicleId]?.[system],
});

/** What was done in and about the vehicle since the tool was connected. */
export type Circumstances = {
  /** How the headlamps were last said to be; null while nobody said it. */
  lamps: "on" | "off" | null;
  /** Whether the routine was left and entered again. */
  twice: boolean;
  /** Whether buttons were held, and the vehicle entered. */
  buttons: boolean;
  /** Somebody has seen to what the vehicle asked for, without a step that says so. */
  seenTo: boolean;
};

/** What keeps a unit from looking at all, in its own words; null when nothing does. */
export function unmet(m: Manners, ignition: Ignition, now: Circumstances): string | null {
  if (now.seenTo) return null;
  if (m.engine === "running" && ignition !== "running")
    return "Engine not running: the routine wants it to idle.";
  if (m.engine === "off" && ignition === "running")
    return "Engine running: the routine wants it off, with the ignition on.";
  if (m.lamps !== "any" && now.lamps !== m.lamps)
    return `Headlamps ${m.lamps === "on" ? "off: the routine wants them on" : "on: the routine wants them off"}.`;
  if (m.twice && !now.twice) return "Routine not offered: leave it once, then enter it again.";
  return m.buttons && !now.buttons ? "Routine not entered: its buttons were not held." : null;
}

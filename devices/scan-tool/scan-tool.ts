import type { RoutineResult, StoredAim } from "@/core/run";
import type { SheetStep } from "@/core/sheet";

/**
 * A scan tool plugged into the vehicle: the one interface the product knows, whatever stands behind
 * it.
 */
export interface ScanTool {
  /** Who is speaking; goes on the record. */
  readonly identity: { name: string; serial: string; software: string };
  /**
   * Opens a session with the vehicle. @throws DeviceRefusal when the vehicle or adapter does not
   * answer
   */
  connect(): Promise<{ volts: number }>;
  /** The VIN of the vehicle it is plugged into, as its units have it. @throws DeviceRefusal */
  readVin(): Promise<string>;
  /** The aim its forward camera has stored; null where the vehicle does not tell it. */
  storedAim(): Promise<StoredAim | null>;
  /** Whether the vehicle's ignition is on, as the tool sees it. */
  ignition(): Promise<Ignition>;
  /** Whether the vehicle is still there, in the session that was opened with it. */
  session(): Promise<"kept" | "lost">;
  /** Reads one value in the tool's own unit. @throws DeviceRefusal */
  readValue(value: StoredValue): Promise<{ value: number; unit: "mm" | "cm" | "in" | "V" | "deg" }>;
  /**
   * Whether the vehicle has entered its routine, of which buttons were held so long after its ignition.
   */
  entered(held: { afterSeconds: number; withinSeconds: number }): Promise<boolean>;
  /**
   * Lets a unit test itself once it has learned. @returns whether it is content, and what it says
   * @throws DeviceRefusal when the vehicle does not answer
   */
  selfTest(): Promise<{ passed: boolean; says: string }>;
  /** Runs the routine to its end. @throws DeviceRefusal when the vehicle will not start it */
  runRoutine(routine: Routine): Promise<RoutineResult>;
  /**
   * Turns a camera on its arm by so many commands: outward and up, less than nothing the other way.
   *
   * @returns how many were carried out. @throws DeviceRefusal at the end of its travel
   */
  turnCamera(
    side: "left" | "right",
    commands: { pan: number; tilt: number },
  ): Promise<{ pan: number; tilt: number }>;
}

/** Running: the engine idles, the ignition on with it. */
export type Ignition = "on" | "off" | "running";

/** Values a vehicle has stored, or measures. */
export type StoredValue = Extract<SheetStep, { kind: "compare" }>["value"];

/** Routines a vehicle knows. */
export type Routine = Extract<SheetStep, { kind: "routine" }>["routine"];

/** The device or the vehicle behind it said no. The message says what to do. */
export class DeviceRefusal extends Error {
  override readonly name = "DeviceRefusal";
}

import type { RoutineResult } from "@/core/run";
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
  /** Whether the vehicle's ignition is on, as the tool sees it. */
  ignition(): Promise<"on" | "off">;
  /** Reads one value in the tool's own unit. @throws DeviceRefusal */
  readValue(
    value: "camera-height" | "battery-voltage",
  ): Promise<{ value: number; unit: "in" | "V" }>;
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

/** Routines a vehicle knows. */
export type Routine = Extract<SheetStep, { kind: "routine" }>["routine"];

/** The device or the vehicle behind it said no. The message says what to do. */
export class DeviceRefusal extends Error {
  override readonly name = "DeviceRefusal";
}

import type { RoutineResult } from "@/core/run";

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
  /** Whether the vehicle's ignition is on, as the tool sees it. */
  ignition(): Promise<"on" | "off">;
  /** Reads one value in the tool's own unit. @throws DeviceRefusal */
  readValue(
    value: "camera-height" | "battery-voltage",
  ): Promise<{ value: number; unit: "in" | "V" }>;
  /** Runs the routine to its end. @throws DeviceRefusal when the vehicle will not start it */
  runRoutine(routine: Routine): Promise<RoutineResult>;
}

/** Routines a vehicle knows. */
export type Routine = "forward-camera-static" | "surround-view-static" | "trailer-camera-static";

/** The device or the vehicle behind it said no. The message says what to do. */
export class DeviceRefusal extends Error {
  override readonly name = "DeviceRefusal";
}

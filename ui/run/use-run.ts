type RunAct =
  | { type: "connect"; changed?: string }
  | { type: "confirm"; step: string }
  | { type: "place"; step: string }
  | { type: "ignition"; step: string; to: "on" | "off" }
  | { type: "waited"; step: string }
  | { type: "read"; step: string }
  | { type: "input"; step: string; valueMm: number }
  | { type: "aim-read"; step: string; right: number; up: number }
  | { type: "aim-turn"; step: string; pan: number; tilt: number }
  | { type: "start"; step: string }
  | { type: "stop"; reason: string };

/** What the technician asks of the routine of one calibration. */
export type RunCommand = RunAct & { calibrationId?: string };

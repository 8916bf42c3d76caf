type RunAct =
  | { type: "connect"; changed?: string }
  | { type: "confirm"; step: string }
  | { type: "place"; step: string }
  | { type: "ignition"; step: string; to: "on" | "off" | "running" }
  | { type: "start-clock"; step: string }
  | { type: "clock-over"; step: string }
  | { type: "held"; step: string }
  | { type: "hold-over"; step: string }
  | { type: "choose"; step: string; option: string }
  | { type: "accept-value"; step: string; reason: string }
  | { type: "ask-vehicle" }
  | {
      type: "connect-by-hand";
      tool: { name: string; serial: string; software: string };
      volts: number | null;
      changed?: string;
    }
  | { type: "type-value"; step: string; value: number; unit: string }
  | { type: "tell-held"; step: string; entered: boolean }
  | {
      type: "type-result";
      step: string;
      passed: boolean;
      qualityPercent: number | null;
      yawDeg: number | null;
      pitchDeg: number | null;
      rollDeg: number | null;
      reason: string | null;
      code: string | null;
    }
  | {
      type: "import-result";
      step: string;
      name: string;
      sha256: string;
      text: string;
      mapping: string;
    }
  | { type: "waited"; step: string }
  | { type: "read"; step: string }
  | { type: "input"; step: string; valueMm: number }
  | { type: "aim-read"; step: string; right: number; up: number }
  | { type: "aim-turn"; step: string; pan: number; tilt: number }
  | { type: "start"; step: string }
  | { type: "stop"; reason: string };

/** What the technician asks of the routine of one calibration. */
export type RunCommand = RunAct & { calibrationId?: string };

import { describe, expect, it } from "vitest";
import { packed } from "@/core/drive/log";
import type { DriveSample } from "@/core/drive/sample";
import { SHEETS } from "@/demo/data/sheets";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import { intakeSchema, type EventBody } from ".";
import { dearest, drivesOf } from "./driven";
import { standingDrive } from "./standing-drive";

const sheet = SHEETS.find((s) => s.id === "harrow-forward")!;
const ground = groundOf(
  intakeSchema.parse({ ...INTAKE, vehicleId: "tesmar-harrow", sheetId: sheet.id, sheetVersion: 1 }),
  1,
  sheet,
);
const START = Date.UTC(2026, 10, 3, 11);
const FINE: Omit<DriveSample, "atMs"> = {
  speedMps: 70 / 3.6,
  lines: { left: "solid", right: "broken" },
  radiusM: "straight",
  gapM: "nobody",
  light: "day",
  weather: [],
  sunOffDeg: 180,
  keyOn: true,
};

/** Seconds from one to another of a drive, as a tablet writes them. */
const part = (driveId: string, from: number, to: number, change: object = {}): EventBody => ({
  kind: "drive-part",
  driveId,
  startMs: START + from * 1000,
  rows: Array.from({ length: to - from }, (_, i) => {
    const startMs = START + from * 1000;
    const atMs = startMs + i * 1000;
    return packed({ ...FINE, ...change, atMs, place: null, online: true }, startMs);
  }),
});
const end = (driveId: string, outcome: "learned" | "given-up"): EventBody => ({
  kind: "drive-end",
  driveId,
  outcome,
  says: "",
  remark: outcome === "given-up" ? "rain came" : "",
  drove: "Oskar Veld",
  watched: "",
});

const leave = (driveId: string): EventBody => ({
  kind: "drive-leave",
  driveId,
  source: "made-up",
  departMs: START,
  planned: { seconds: 1000, from: 900, to: 1100, chance: 0.9 },
  keeps: "foot",
  hotspot: true,
  rains: false,
  rainReason: "",
  drove: "Oskar Veld",
  watched: "",
});

describe("the drives of a calibration", () => {
  it("stand in the order they were begun, with a plan or without", () => {
    const log = logOf(
      ground,
      part("a", 0, 9),
      end("a", "given-up"),
      leave("b"),
      end("c", "learned"),
    );
    const drives = drivesOf(ground, log);
    expect(drives.map((d) => d.id)).toEqual(["a", "b", "c"]);
    expect(drives.map((d) => d.leave?.body.planned?.seconds)).toEqual([undefined, 1000, undefined]);
  });
  it("are counted over all their parts, each drive by itself, with what cost most first", () => {
    const log = logOf(
      ground,
      part("a", 0, 60),
      part("a", 60, 100, { speedMps: 5 }),
      part("a", 100, 120, { lines: { left: "none", right: "broken" } }),
      end("a", "given-up"),
      part("b", 600, 660),
    );
    const [a, b] = drivesOf(ground, log);
    expect(a!.progress).toMatchObject({ seconds: 60, cost: { speed: 40, lines: 19 } });
    expect(dearest(a!.progress!)).toEqual([
      ["speed", 40],
      ["lines", 19],
    ]);
    expect(a!.end!.body.remark).toBe("rain came");
    expect(b).toMatchObject({ id: "b", end: null, progress: { seconds: 59 } });
  });
  it("leave out of a log what it says nothing of, and say so", () => {
    const bare = {
      lines: null,
      gapM: null,
      light: null,
      weather: null,
      sunOffDeg: null,
      keyOn: null,
    };
    const [d] = drivesOf(ground, logOf(ground, part("a", 0, 60, bare)));
    expect(d!.progress!.seconds).toBe(59);
    expect(d!.unknown).toEqual(["lines", "gap", "weather", "sun", "light", "key"]);
  });
  it("stand by the vehicle's word until that is struck or its routine runs again", () => {
    const ran: EventBody = {
      kind: "run",
      event: {
        type: "routine-result",
        at: "2026-11-03T12:00:00.000Z",
        result: { passed: true, qualityPercent: 90 },
      } as never,
    };
    const learned = [ran, part("a", 0, 60), end("a", "learned")];
    const log = logOf(ground, ...learned);
    expect(standingDrive(ground, log)).toMatchObject({ body: { driveId: "a" } });
    expect(standingDrive(ground, logOf(ground, ...learned, end("b", "given-up")))).toBeNull();
    expect(standingDrive(ground, logOf(ground, ...learned, ran))).toBeNull();
    const struck: EventBody = { kind: "strike", target: log.at(-1)!.id, reason: "another car" };
    expect(standingDrive(ground, logOf(ground, ...learned, struck))).toBeNull();
  });
});

import { beforeAll, describe, expect, it } from "vitest";
import { judgeTarget, runGate, standingNow, staysOf, viewOf } from "@/core/job";
import { buildRecord, recordSchema } from "@/core/record";
import { readSheet, type Sheet, type Target } from "@/core/sheet";
import { SHEETS } from "@/demo/data/sheets";
import { technician } from "@/demo/technician";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { db } from "../db/client";
import { sheets } from "../db/schema";
import { commandRun, type RunCommand } from "./run";
import { eventsAfter } from "./log";
import { findJob, type JobRow } from "./store";

const lisse = SHEETS.find((s) => s.id === "lisse-forward")!;
const board = (id: string, acrossMm: number, more: Partial<Target["placement"]> = {}): Target => {
  const { target } = { target: lisse.setups[0]!.targets[0]! };
  return {
    ...target,
    id,
    name: `${id} board`,
    placement: { ...target.placement, acrossMm, ...more },
    beam: { acrossMm: 0 },
  };
};

/** Two boards on one beam, then one of them farther along its rail. */
const BEAM: Sheet = {
  ...lisse,
  id: "lisse-beam",
  version: 1,
  title: "Lisse, forward camera, two boards on one beam",
  setups: [
    { id: "pair", name: "both boards", targets: [board("left", 420), board("right", -420)] },
    { id: "aside", name: "one board", targets: [board("far-left", 760)] },
  ],
  run: [
    {
      id: "ign-on",
      kind: "ignition",
      say: "Ignition on. Do not start the engine.",
      to: "on",
      waitSeconds: 0,
    },
    {
      id: "learn-both",
      kind: "routine",
      say: "Let the camera look at both boards.",
      routine: "forward-camera-static",
      minQuality: 60,
    },
    {
      id: "slide",
      kind: "position",
      say: "Take one board off and slide the other out along the rail.",
      to: "far-left",
    },
    {
      id: "learn-far",
      kind: "routine",
      say: "Let the camera look at the board aside.",
      routine: "forward-camera-static",
      minQuality: 60,
    },
  ],
};

beforeAll(async () => {
  await openTestShop();
  const read = readSheet(BEAM);
  if (!read.ok) throw new Error(read.problems.join("; "));
  db().insert(sheets).values({ id: BEAM.id, version: 1, doc: read.sheet }).run();
});

describe("boards on one beam, in a job", () => {
  it("are set out on the one stand, checked by code and by scale, and slid on without the stand", async () => {
    const t = technician(INES, new Date(Date.now() - 3600_000).toISOString());
    t.open({ ...INTAKE, sheetId: BEAM.id, sheetVersion: 1 }, "beam-job");
    const job = (): JobRow => findJob(t.jobId)!;
    const events = () => eventsAfter(t.jobId);
    const view = () => viewOf(job().ground, null);
    const command = (c: RunCommand) => commandRun(t.jobId, 0, c, INES);
    const setOut = (id: string): void => {
      t.turnTo(BEAM.id, id);
      t.follow((j) => j.next.kind === "settle");
      t.settle();
      t.write({ kind: "board", code: lisse.setups[0]!.targets[0]!.object.code, reason: null });
    };
    const until = async (type: RunCommand["type"], c: RunCommand): Promise<void> => {
      for (let n = 0; n < 6; n++) {
        const before = events().length;
        await command(c);
        const last = events().at(-1)!.body;
        if (events().length > before && last.kind === "run" && last.event.type !== "connect-failed")
          return;
      }
      throw new Error(`${type} does not come through`);
    };
    // One stand carries both from the beginning.
    expect(staysOf(view(), []).map((s) => [s.target.id, s.standId, s.carrier])).toEqual([
      ["left", "S-1", "lisse-beam/left"],
      ["right", "S-1", "lisse-beam/left"],
    ]);
    await t.check("ready");
    setOut("left");
    // The beam is proved; of the other board only its place on the rail is not read.
    expect(judgeTarget(view(), events(), "right").solution.unproved).toEqual(["rail"]);
    setOut("right");
    const own = events().filter((e) => e.body.kind === "reading" && e.body.targetId === "right");
    expect(own.length).toBeLessThanOrEqual(4);
    expect(standingNow(view(), events(), "left").every((s) => s.settled)).toBe(true);
    await until("connect", { type: "connect" });
    await command({ type: "ignition", step: "ign-on", to: "on" });
    await command({ type: "start", step: "learn-both" });
    expect(events().at(-1)!.body).toMatchObject({ event: { result: { passed: true } } });

    // On along the rail: the same stand, the same beam, no other stand is asked for.
    expect(runGate(view(), events())).toMatchObject({
      kind: "turn-to",
      why: "next",
      brought: false,
      target: { id: "far-left" },
    });
    t.write({ kind: "position", to: "far-left" });
    expect(staysOf(view(), events()).at(-1)).toMatchObject({
      target: { id: "far-left" },
      standId: "S-1",
      carrier: "lisse-beam/left",
    });
    // What was known of the beam is known still.
    const { solution } = judgeTarget(view(), events(), "far-left");
    expect(Math.sqrt(solution.boardCovariance![0]![0]!)).toBeLessThan(10);
    setOut("far-left");
    await command({ type: "place", step: "slide" });
    await command({ type: "start", step: "learn-far" });
    expect(events().at(-1)!.body).toMatchObject({ event: { result: { passed: true } } });
    const record = recordSchema.parse(buildRecord(1, job().ground, events(), true));
    const { targets, run } = record.calibrations[0]!;
    expect(run.status).toBe("passed");
    expect(targets.map((x) => [x.id, x.stand, x.settled !== null])).toEqual([
      ["left", "S-1, Stand 1, rear pivot", true],
      ["right", "S-1, Stand 1, rear pivot", true],
      ["far-left", "S-1, Stand 1, rear pivot", true],
    ]);
    for (const x of targets) expect(x.readings.some((r) => r.slot === "rail-scale")).toBe(true);
  }, 40_000);
});

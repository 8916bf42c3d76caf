import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { groundOf, logOf } from "@/tests/fixtures";
import { madeUpVin } from "@/demo/data/vehicles";
import { buildRecord, recordSchema } from "@/core/record";
import {
  fittedTo,
  jobOwed,
  jobRedoneBy,
  planFor,
  stageStates,
  type EventBody,
  type Intake,
  type JobEvent,
} from ".";

const intake: Intake = {
  vin: madeUpVin("0TMHRWLC4T310077"),
  vinReason: null,
  vehicleId: "tesmar-harrow",
  happenings: [
    { event: "glass-out", place: "windshield" },
    { event: "bumper-touched", place: "front" },
  ],
  answers: {},
  complaint: "Warns of cars that are not there",
  sheets: [{ sheetId: "harrow-forward", sheetVersion: 1, standId: "S-2" }],
  customer: "Skerry Fish Company",
  plate: "",
  order: "",
  rearToeDeg: null,
};
const ground = groundOf(intake, 1, { ...SHEETS[1]!, method: "static", drive: undefined });
const log = (...bodies: EventBody[]): JobEvent[] => logOf(ground, ...bodies);
const owedState = (events: JobEvent[]) => stageStates(events, ground).find((s) => s.id === "owed")!;

const declined: EventBody = {
  kind: "owed-decline",
  line: "front-radar/static",
  reason: "dealer does it",
};
const done: EventBody = {
  kind: "owed-done",
  line: "front-radar/static",
  note: "radar stand, learned",
};

describe("what a job owes", () => {
  it("comes from its intake, and stays open for what its own sheet does not do", () => {
    const { lines } = jobOwed(ground, log());
    expect(lines.map((l) => [l.id, l.onSheet])).toEqual([
      ["forward-camera/static", true],
      ["front-radar/static", false],
    ]);
    expect(owedState(log())).toMatchObject({
      state: "loose",
      lacks: "1 more owed, not on this job’s sheet",
    });
    // A sheet that goes on to the road owes the road too, and does it: nobody has done it by standing
    // before the board, so its drive stays open.
    const onward = groundOf(intake, 1, SHEETS[1]!);
    expect(
      jobOwed(onward, log()).lines.find((l) => l.id === "forward-camera/dynamic"),
    ).toMatchObject({ onSheet: true, done: null });
    expect(stageStates(log(), onward).find((s) => s.id === "drive")).toMatchObject({
      state: "open",
    });
  });
  it("is settled by a decline with its reason or by saying it was done; striking that opens it again", () => {
    for (const body of [declined, done]) {
      expect(owedState(log(body)).state).toBe("settled");
      expect(
        owedState(log(body, { kind: "strike", target: "e2", reason: "taken back" })).state,
      ).toBe("loose");
    }
    // A declined line takes no time in the plan; a done one keeps its place.
    expect(jobOwed(ground, log(declined)).plan!.steps).toHaveLength(1);
    expect(jobOwed(ground, log(done)).plan!.steps).toHaveLength(2);
  });
  it("takes what the technician adds, once, with the name and the reason", () => {
    const add: EventBody = {
      kind: "owed-add",
      system: "rear-camera",
      method: "static",
      reason: "bracket bent",
    };
    const { lines } = jobOwed(ground, log(add, add));
    expect(lines.filter((l) => l.id === "rear-camera/static")).toHaveLength(1);
    expect(lines.at(-1)!.added!.by.name).toBe("Ines Tarbet");
  });
  it("leaves out what an answer says is not fitted", () => {
    expect(fittedTo(ground.vehicle, { radar: "plain" }).map((f) => f.system)).not.toContain(
      "front-radar",
    );
    const plain = { ...ground, intake: { ...intake, answers: { radar: "plain" } } };
    expect(jobOwed(plain, log()).lines.map((l) => l.id)).toEqual(["forward-camera/static"]);
    expect(
      jobRedoneBy(ground, jobOwed(ground, log()).lines, { event: "alignment", place: "chassis" }),
    ).toHaveLength(2);
  });
  it("stands on the record with every reason, and a decline with who said so", () => {
    const record = recordSchema.parse(buildRecord(1, ground, log(declined), true));
    expect(record.owed.lines.map((l) => l.outcome)).toEqual(["this-record", "declined"]);
    expect(record.owed.lines[1]).toMatchObject({
      name: "Front radar, static",
      declined: { reason: "dealer does it", by: { initials: "IT" } },
    });
    expect(record.owed.lines[0]!.reasons[0]!.source).toContain("page 4");
  });
});

describe("a measured floor", () => {
  const measured = (stand: number): EventBody => ({
    kind: "measured",
    itemId: "floor",
    values: { FL: 600, FR: 600, RL: 600, RR: 600, stand },
    typed: {},
  });
  it("corrects the height that Set out asks for, until it is struck or measured again", () => {
    expect(planFor(ground, log(), "first").floorStepMm).toBeUndefined();
    expect(planFor(ground, log(measured(609)), "first").floorStepMm!.value).toBeCloseTo(-9, 9);
    expect(
      planFor(ground, log(measured(609), measured(598)), "first").floorStepMm!.value,
    ).toBeCloseTo(2, 9);
    expect(
      planFor(
        ground,
        log(measured(609), { kind: "strike", target: "e2", reason: "wrong line" }),
        "first",
      ).floorStepMm,
    ).toBeUndefined();
  });
  it("blocks the job when the technician says that it does", () => {
    const blocks: EventBody = {
      kind: "check",
      stage: "ready",
      itemId: "floor",
      outcome: "blocks",
      reason: "ramp",
    };
    expect(stageStates(log(blocks), ground).find((s) => s.id === "ready")).toMatchObject({
      state: "stop",
      lacks: expect.stringMatching(/Blocked: Floor/) as string,
    });
  });
});

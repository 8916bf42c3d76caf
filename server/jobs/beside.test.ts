import { beforeAll, describe, expect, it } from "vitest";
import {
  freeStands,
  judgeTarget,
  planFor,
  standAt,
  standingNow,
  viewOf,
  type TabletEvent,
} from "@/core/job";
import { madeUpVin } from "@/demo/data/vehicles";
import { technician } from "@/demo/technician";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { buildRecord } from "@/core/record";
import { commandRun, type RunCommand } from "./run";
import { writeLines } from "./append";
import { eventsAfter } from "./log";
import { JobRefusal } from "./refusal";
import { findJob, type JobRow } from "./store";

beforeAll(() => openTestShop());

const PAIR = {
  ...INTAKE,
  vin: madeUpVin("0AVSND3E6S410031"),
  vehicleId: "ardvale-sandling",
  happenings: [{ event: "camera-touched", place: "windshield" }],
  sheetId: "sandling-forward-pair",
  sheetVersion: 1,
  standId: "S-2",
};

/** A job whose first board is set and checked, on its way through the routine. */
async function begun(seed: string) {
  const t = technician(INES, new Date(Date.now() - 3600_000).toISOString());
  t.open(PAIR, seed);
  const job = (): JobRow => findJob(t.jobId)!;
  const events = () => eventsAfter(t.jobId);
  const view = () => viewOf(job().ground, null);
  /** Which boards stand beside each other, on what, and whether each is proved. */
  const standing = () =>
    standingNow(view(), events(), "left").map((b) => [b.target.id, b.standId, b.settled !== null]);
  const say = (body: TabletEvent): void => {
    const line = { id: `x${job().head}-${seed}`, takenAt: new Date().toISOString(), body };
    const result = writeLines(t.jobId, job().head, [line], INES);
    for (const o of result.ok ? result.outcomes : [])
      if (o.outcome === "refused") throw new JobRefusal(o.why);
  };
  const setOut = (code: string): void => {
    t.follow((j) => j.next.kind === "settle");
    t.settle();
    say({ kind: "board", code, reason: null });
  };
  const command = (c: RunCommand) => commandRun(t.jobId, 0, c, INES);
  /** The plug fails now and then. */
  const connect = async (): Promise<void> => {
    for (
      let n = 0;
      n < 5 && !events().some((e) => e.body.kind === "run" && e.body.event.type === "connected");
      n++
    )
      await command({ type: "connect" });
  };
  await t.check("ready");
  setOut("HQ-14");
  await connect();
  await command({ type: "ignition", step: "ign-on", to: "on" });
  return { job, events, view, standing, say, setOut, command };
}

describe("two boards at once", () => {
  it("the second stand carries its own, the first stays proved, and the vehicle sees both", async () => {
    const { job, events, view, standing, say, setOut, command } = await begun("pair-a");
    for (const standId of [undefined, "S-2", "S-9"])
      expect(() => say({ kind: "position", to: "left", standId })).toThrow(
        /another stand: S-1, S-3/,
      );
    await expect(command({ type: "place", step: "to-left" })).rejects.toThrow(
      /Set the board out at the left place first/,
    );
    // A place that none of the others reaches leaves nobody to choose.
    const high = structuredClone(view());
    high.sheet.setups[0]!.targets[1]!.placement.heightMm = 1700;
    expect(freeStands(high, events(), "left")).toEqual([]);
    say({ kind: "position", to: "left", standId: "S-1" });
    expect(standAt(view(), events(), "left").id).toBe("S-1");
    expect(planFor(view(), events(), "left").target.placement.acrossMm).toBe(1180);
    expect(standing()).toEqual([
      ["first", "S-2", true],
      ["left", "S-1", false],
    ]);
    setOut("HQ-17");
    // Both boards stand about one car: what was read of the first is known of the second too.
    const both = judgeTarget(view(), events(), "left").solution;
    const own = events().filter((e) => !("targetId" in e.body) || e.body.targetId === "left");
    const alone = judgeTarget(view(), own, "left").solution;
    const known = (s: typeof both): number => s.aim!.covariance[0]![0]!;
    expect(known(both)).toBeLessThan(known(alone));
    expect(both.network.bodies.map((b) => b.id.split("@")[0])).toContain(
      "sandling-forward-pair/first",
    );
    await command({ type: "place", step: "to-left" });
    await command({ type: "confirm", step: "lamps" });
    await command({ type: "start", step: "learn" });
    expect(events().at(-1)!.body).toMatchObject({
      event: { type: "routine-result", result: { passed: true } },
    });
    const record = buildRecord(1, job().ground, events(), true);
    expect(record.calibrations[0]!.targets).toMatchObject([
      { name: "first place", stand: expect.stringMatching(/^S-2/) as string },
      { name: "the left place", stand: expect.stringMatching(/^S-1/) as string },
    ]);
    for (const t of record.calibrations[0]!.targets) {
      expect(t.settled!.quantities.map((q) => q.id)).toEqual([
        "along",
        "across",
        "twist",
        "height",
      ]);
      expect(t.readings.filter((r) => r.state === "counts").length).toBeGreaterThanOrEqual(3);
    }
  }, 30_000);

  it("a car that moved puts both in doubt; the routine waits until both are proved again", async () => {
    const { events, standing, say, setOut, command } = await begun("pair-b");
    say({ kind: "position", to: "left", standId: "S-1" });
    setOut("HQ-17");
    await command({ type: "place", step: "to-left" });
    await command({ type: "confirm", step: "lamps" });
    // Cranked at the second stand: the first knows nothing of it.
    say({ kind: "touch", touch: "cranked" });
    expect(standing().map((s) => s[2])).toEqual([true, false]);
    say({ kind: "touch", touch: "moved-car" });
    expect(standing().map((s) => s[2])).toEqual([false, false]);
    say({ kind: "position", to: "first" });
    setOut("HQ-14");
    await expect(command({ type: "start", step: "learn" })).rejects.toThrow(
      /Set the board out at the left place first/,
    );
    expect(() => say({ kind: "position", to: "first", standId: "S-1" })).toThrow(JobRefusal);
    say({ kind: "position", to: "left", standId: "S-1" });
    setOut("HQ-17");
    expect(standing().map((s) => s[2])).toEqual([true, true]);
    await command({ type: "start", step: "learn" });
    expect(events().at(-1)!.body).toMatchObject({
      event: { type: "routine-result", result: { passed: true } },
    });
  }, 30_000);
});

import { beforeAll, describe, expect, it } from "vitest";
import { judgeTarget, viewOf } from "@/core/job";
import { bayWallsOf } from "@/core/job/parked";
import { buildRecord, recordSchema } from "@/core/record";
import { BAYS } from "@/demo/data/bays";
import { technician } from "@/demo/technician";
import { trueError } from "@/tests/coverage";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { keepBays } from "../bays/store";
import { bayOf } from "./bay";
import { eventsAfter } from "./log";
import { findJob } from "./store";

beforeAll(async () => {
  await openTestShop();
  keepBays(BAYS);
});

describe("a job in a bay whose walls are known", () => {
  it("is set out by them on the product's advice, and the board stands where it belongs", async () => {
    const t = technician(INES, new Date(Date.now() - 3600_000).toISOString());
    t.open(INTAKE, "by-the-walls");
    const events = () => eventsAfter(t.jobId);
    const view = () => viewOf(findJob(t.jobId)!.ground, null);
    const [lisse] = view().sheet.setups[0]!.targets;
    // Nobody said where it stands: no wall is read.
    expect(judgeTarget(view(), events(), lisse!.id).solution.slots.some((s) => s.wall)).toBe(false);
    t.write({
      kind: "parked",
      bay: "bay-2",
      name: "Bay 2",
      xMm: 2600,
      yMm: 2700,
      headingRad: 0.004,
    });
    expect(bayWallsOf(events())).toMatchObject({ bay: "bay-2", sigmaMm: 10 });
    expect(bayWallsOf(events())!.things.length).toBe(3);
    await t.check("ready");
    t.write({ kind: "school", school: "walls" });
    t.follow((j) => j.next.kind === "settle");
    const taken = events().flatMap((e) => (e.body.kind === "reading" ? [e.body.slotId] : []));
    expect(taken.filter((id) => id.startsWith("wall-")).length).toBeGreaterThanOrEqual(4);
    const world = bayOf(findJob(t.jobId)!, view(), events(), lisse!.id);
    const [along, across, twist] = trueError(world);
    const { tolerance } = lisse!;
    expect(Math.abs(along)).toBeLessThan(tolerance.alongMm!);
    expect(Math.abs(across)).toBeLessThan(tolerance.acrossMm!);
    expect(Math.abs(twist)).toBeLessThan((tolerance.twistDeg! * Math.PI) / 180);
    t.settle();
    const record = recordSchema.parse(buildRecord(1, findJob(t.jobId)!.ground, events(), true));
    expect(record.calibrations[0]!.targets[0]).toMatchObject({ way: "Walls of the bay" });
  }, 40_000);
});

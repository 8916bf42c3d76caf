import { beforeAll, describe, expect, it } from "vitest";
import { judgeTarget, viewOf } from "@/core/job";
import { bayMarks } from "@/core/job/bay-marks";
import { bayWallsOf } from "@/core/job/parked";
import { bayDxf, bayFromDxf, baySvg } from "@/core/space/drawing-file";
import { buildRecord, recordSchema } from "@/core/record";
import { BAYS } from "@/demo/data/bays";
import { technician } from "@/demo/technician";
import { trueError } from "@/tests/coverage";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { keepBays } from "../bays/store";
import { bayOf } from "./bay";
import { worthSample } from "../kit/worth";
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
    // Its mark-out in the bay: the board as far ahead of the vehicle as its sheet says, on the drawing.
    const pose = { xMm: 2600, yMm: 2700, headingRad: Math.PI / 2 };
    const [, bay] = BAYS;
    const marks = bayMarks(findJob(t.jobId)!.ground, events(), bay!, pose);
    const board = marks.points.find((p) => p.name.endsWith(": board centre"))!;
    const { vehicle } = findJob(t.jobId)!.ground;
    expect(board.at[0]).toBeCloseTo(2600, 0);
    expect(board.at[1]).toBeCloseTo(2700 + vehicle.wheelbaseMm + lisse!.placement.alongMm, 0);
    expect(marks.points[0]!.name).toMatch(/^front left wheel: wall \d .* mm, wall \d .* mm$/);
    const drawn = bayDxf(bay!, marks);
    expect(drawn).toContain("MARK-OUT");
    // Read back it is the bay again, without what was marked in it.
    expect(bayFromDxf(drawn, bay!)).toEqual(bayFromDxf(bayDxf(bay!), bay!));
    expect(baySvg(bay!, marks)).toContain("board centre");
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
    // Said by mistake, it is struck: nothing is known of any wall then, and what was read to them stays.
    const said = events().find((e) => e.body.kind === "parked")!;
    const reason = "It stands in the other bay";
    t.write({ kind: "strike", target: said.id, reason });
    expect(bayWallsOf(events())).toBeNull();
    const after = judgeTarget(view(), events(), lisse!.id).solution;
    expect(after.slots.some((s) => s.wall)).toBe(false);
    expect(after.adjustment).not.toBeNull();
    // What is gone through again of it is the set-out itself, in a world without its bay.
    const { setOuts, plans } = worthSample();
    expect([setOuts, plans.length]).toEqual([1, 1]);
    expect(plans[0]).toMatchObject({ stand: { id: "S-1" }, against: [] });
    expect(plans[0]).not.toHaveProperty("bay");
    expect(plans[0]).not.toHaveProperty("school");
    expect(worthSample(Date.now() + 200 * 86_400_000).setOuts).toBe(0);
    const record = recordSchema.parse(buildRecord(1, findJob(t.jobId)!.ground, events(), true));
    expect(record.calibrations[0]!.targets[0]).toMatchObject({ way: "Walls of the bay" });
  }, 40_000);
});

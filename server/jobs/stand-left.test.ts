import { beforeAll, describe, expect, it } from "vitest";
import { eventsOf, judgeTarget, standingAt, viewOf } from "@/core/job";
import { technician } from "@/demo/technician";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { eventsAfter } from "./log";
import { standsLeft } from "./stand-left";
import { findJob } from "./store";

const HOUR_MS = 3_600_000;
const ago = (hours: number): string => new Date(Date.now() - hours * HOUR_MS).toISOString();

beforeAll(() => openTestShop());

describe("a stand that another job left", () => {
  it("is offered to the next car of the model, taken over by the shop's own figures only, and not once it was touched", async () => {
    const first = technician(INES, ago(2));
    first.open({ ...INTAKE, plate: "HQ 11 ONE" }, "left-first");
    await first.check("ready");
    first.follow(({ next }) => next.kind === "settle");
    first.settle();
    const next = technician(INES, ago(0.3));
    next.open({ ...INTAKE, plate: "HQ 22 TWO" }, "left-next");
    await next.check("ready");
    const { ground } = findJob(next.jobId)!;
    const view = viewOf(ground, null);
    const [targetId] = view.sheet.setups[0]!.targets.map((t) => t.id);
    const offer = () =>
      standsLeft(findJob(next.jobId)!, new Date())[`${view.calibrationId}/${targetId}`];
    const left = offer()!;
    expect(left.from).toMatchObject({ jobId: first.jobId, called: "HQ 11 ONE" });

    const off = { ...left.standing, height: { value: 1234, sigma: 0.1 } };
    const line = (standing: typeof left.standing) => ({ kind: "kept", ...left, standing }) as const;
    expect(() => next.write(line(off))).toThrow(/worked with since/);
    next.write(line(left.standing));
    const log = () => eventsAfter(next.jobId);
    const taken = judgeTarget(view, log(), targetId!);
    expect(taken.solution.unproved).toEqual(["plan"]);
    expect(taken.solution.scalars.height.value).toBeCloseTo(left.standing.height.value, 6);
    expect(offer()).toBeUndefined();

    // In the simulated bay the same stand stands there: fewer readings prove it.
    next.follow((j) => j.next.kind === "settle");
    next.settle();
    expect(standingAt(view, log(), targetId!)?.settled).not.toBeNull();
    const read = (jobId: string) => eventsOf(eventsAfter(jobId), "reading").length;
    expect(read(next.jobId)).toBeLessThan(read(first.jobId));
    expect(() => next.write(line(left.standing))).toThrow(/read or moved in this job/);

    const third = technician(INES, ago(0.1));
    third.open({ ...INTAKE, plate: "HQ 33 TRE" }, "left-third");
    const standing = () => standsLeft(findJob(third.jobId)!, new Date());
    expect(Object.values(standing())[0]!.from.jobId).toBe(next.jobId);
    next.write({ kind: "touch", touch: "knocked" });
    expect(standing()).toEqual({});
  });
});

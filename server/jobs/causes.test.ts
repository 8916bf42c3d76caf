import { beforeAll, expect, it } from "vitest";
import { viewOf, type JobEvent } from "@/core/job";
import { changedSince, limitingCauses, refusalCauses } from "@/core/job/causes";
import { madeUpVin } from "@/demo/data/vehicles";
import { technician } from "@/demo/technician";
import { degToRad } from "@/core/units";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { eventsAfter } from "./log";
import { findJob } from "./store";

beforeAll(() => openTestShop());

/** A job that is set out and run once, in a bay of its own. */
async function ran(seed: string, turnDeg: number, unanswered: string[] = []) {
  const t = technician(INES, new Date(Date.now() - 7_200_000).toISOString());
  t.open({ ...INTAKE, vin: madeUpVin("0NVLS2DA7R100811") }, seed);
  await t.check("ready", {}, unanswered);
  t.follow((j) => j.next.kind === "settle");
  t.settle();
  if (turnDeg) t.turn(degToRad(turnDeg));
  await t.run();
  const view = viewOf(findJob(t.jobId)!.ground, null);
  return { t, view, events: () => eventsAfter(t.jobId) };
}

it("a turned board and clutter each come first in their own job, and only a change is worth a repeat", async () => {
  const yawed = await ran("yawed", 7);
  expect(refusalCauses(yawed.view, yawed.events())![0]!.cause).toBe("twist");
  expect(changedSince(yawed.view, yawed.events())).toEqual([]);
  const cluttered = await ran("clutter-2", 0, ["space"]);
  expect(refusalCauses(cluttered.view, cluttered.events())![0]!.cause).toBe("clutter");
  await cluttered.t.check("ready", {}, []);
  expect(changedSince(cluttered.view, cluttered.events())).toEqual(["checks", "vehicle"]);
}, 60_000);

it("an answer that passed well has no limit named, one that only just passed has", async () => {
  const { view, events } = await ran("plain", 0);
  expect([refusalCauses(view, events()), limitingCauses(view, events())]).toEqual([null, null]);
  const worse = events().map((e): JobEvent =>
    e.body.kind === "run" && e.body.event.type === "routine-result"
      ? {
          ...e,
          body: {
            ...e.body,
            event: { ...e.body.event, result: { ...e.body.event.result, qualityPercent: 82 } },
          },
        }
      : e,
  );
  const ranked = limitingCauses(view, worse)!;
  expect(ranked.reduce((s, r) => s + r.share, 0)).toBeCloseTo(1, 9);
}, 60_000);

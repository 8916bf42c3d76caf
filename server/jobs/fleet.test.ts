import { beforeAll, describe, expect, it } from "vitest";
import {
  calibrationLog,
  codesAfter,
  itemLacks,
  itemOf,
  runOf,
  viewOf,
  type JobEvent,
} from "@/core/job";
import { buildRecord } from "@/core/record";
import { madeUpVin } from "@/demo/data/vehicles";
import { technician } from "@/demo/technician";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { scanToolFor } from "./bay";
import { eventsAfter } from "./log";
import { findJob } from "./store";

beforeAll(() => openTestShop());

type Come = {
  vin: string;
  vehicleId: string;
  event: string;
  place: string;
  sheetId: string;
  standId: string | null;
  answers?: Record<string, string>;
};
/** A job worked by its sheet up to its routine. */
async function ready(come: Come, seed: string) {
  const { sheetId, standId, event, place } = come;
  const t = technician(INES, new Date(Date.now() - 7200_000).toISOString());
  t.open(
    {
      ...INTAKE,
      vin: madeUpVin(come.vin),
      vehicleId: come.vehicleId,
      happenings: [{ event, place }],
      sheetId,
      sheetVersion: 1,
      standId,
      answers: come.answers ?? {},
    },
    seed,
  );
  await t.check("ready");
  const events = (): JobEvent[] => eventsAfter(t.jobId);
  const view = () => viewOf(findJob(t.jobId)!.ground, null);
  for (const target of view().sheet.setups.flatMap((s) => s.targets)) {
    t.turnTo(view().calibrationId, target.id);
    t.follow((j) => j.next.kind === "settle");
    t.settle();
  }
  t.turnTo(view().calibrationId);
  return { t, events, view, state: () => runOf(view(), events()).state };
}

const CARRIER = { vin: "0KDCAR2A7R500033", vehicleId: "keld-carrier", standId: null };
const SIDES = { ...CARRIER, event: "door-touched", place: "left", sheetId: "carrier-sides" };
const REAR = { ...CARRIER, event: "camera-replaced", place: "rear", sheetId: "carrier-rear" };

const CIRRIN: Come = {
  vin: "0NVCRE5A7R500044",
  vehicleId: "norvane-cirrin",
  standId: "S-4",
  event: "bumper-touched",
  place: "front",
  sheetId: "cirrin-radar",
};

describe("a unit that wants something before it looks", () => {
  it.each([
    ["enters only the second time", SIDES],
    ["wants its engine running", REAR],
    ["wants its buttons held, and tests itself afterwards", CIRRIN],
  ])("%s: by its sheet it learns", async (_, come) => {
    const { t, events, view, state } = await ready(come, `fleet-${come.sheetId}`);
    await t.run();
    expect(state()).toMatchObject({ status: "passed" });
    const tests = view().sheet.prove.filter((i) => i.measure?.kind === "self-test");
    for (const { id } of tests) {
      expect(itemLacks(findJob(t.jobId)!.ground, events(), itemOf(view(), "prove", id)!)).toMatch(
        /Let the unit test itself/,
      );
      await t.check("prove");
      const { checks } = buildRecord(1, findJob(t.jobId)!.ground, events(), true);
      expect(checks.flatMap((c) => c.measured)).toContainEqual({
        name: "own test",
        value: "Content.",
        ok: true,
      });
      // Another calibration of the job, with an item of the same name, was not tested by it.
      const { ground } = findJob(t.jobId)!;
      const [first] = ground.calibrations;
      const two = { ...ground, calibrations: [first!, { ...first!, id: "second" }] };
      const lacks = (calibrationId: string): string | null => {
        const of = viewOf(two, calibrationId);
        return itemLacks(two, calibrationLog(of, events()), itemOf(of, "prove", id)!);
      };
      expect(lacks(first!.id)).toBeNull();
      expect(lacks("second")).toMatch(/Let the unit test itself/);
    }
    expect(tests).toHaveLength(come === CIRRIN ? 1 : 0);
  });

  it("does not look without it, and blames nothing that was set out", async () => {
    const { t, events, view, state } = await ready(SIDES, "fleet-skipped");
    await t.run("again");
    const tool = () => scanToolFor(findJob(t.jobId)!, view(), events(), 0);
    const answer = await tool().runRoutine("side-camera-static");
    expect(answer).toMatchObject({ passed: false, refused: "conditions", qualityPercent: 0 });
    expect(answer.reason).toContain("enter it again");
    await t.run();
    expect(state()).toMatchObject({ status: "passed", attempt: 1 });
  });
});

describe("a unit that proves itself on the road", () => {
  it("keeps a code that is new after the clearing, until a function was tried", async () => {
    const harrow: Come = {
      vin: "0TMHRWLG8T310118",
      vehicleId: "tesmar-harrow",
      event: "glass-out",
      place: "windshield",
      sheetId: "harrow-forward",
      standId: "S-2",
      answers: { radar: "plain", doors: "barn" },
    };
    const { t, events, view, state } = await ready(harrow, "fleet-road");
    await t.run();
    expect(state().status).toBe("passed");
    const waits = (): boolean =>
      codesAfter(view(), events())!.units.some((u) =>
        u.codes.some((c) => c.code === "FC-047" && c.after === "pending"),
      );
    // The maker's service does not answer every time.
    await t.scan(["sign-in", "sign-in", "sign-in", "clear", "read"]);
    expect(waits()).toBe(true);
    await t.check("prove");
    expect(waits()).toBe(false);
  });
});

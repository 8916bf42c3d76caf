import { beforeAll, describe, expect, it } from "vitest";
import { eventsOf, itemsOf, otherCar, scanLogOf, viewOf, type EventBody } from "@/core/job";
import { scanState } from "@/core/scan";
import { madeUpVin } from "@/demo/data/vehicles";
import { technician } from "@/demo/technician";
import { INTAKE, logOf } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { holdReadiness } from "./bay";
import { commandScan, scanOnce } from "./scan";
import { eventsAfter } from "./log";
import { JobRefusal } from "./refusal";
import { findJob } from "./store";
import { takeIn } from "./take-in";

beforeAll(() => openTestShop());

const VAN = {
  ...INTAKE,
  vin: madeUpVin("0TMHRWLC4T310077"),
  vehicleId: "tesmar-harrow",
  sheetId: "harrow-forward",
  sheetVersion: 1,
  standId: "S-2",
};

describe("scanning a job's vehicle", () => {
  it("writes every answer to the log, refusals too, and opens the gateway only by a sign-in", async () => {
    const id = takeIn(VAN, INES, { seed: "scan" });
    await commandScan(id, 0, "read", INES);
    await commandScan(id, 0, "clear", INES);
    expect(scanLogOf(eventsAfter(id)).map((e) => e.type)).toEqual(["read", "refused"]);
    for (let n = 0; n < 6 && scanState(scanLogOf(eventsAfter(id)), true).gateway === "locked"; n++)
      await commandScan(id, 0, "sign-in", INES);
    await commandScan(id, 0, "clear", INES);
    expect(scanLogOf(eventsAfter(id)).at(-1)!.type).toBe("cleared");
    await commandScan(id, 0, "drop", INES);
    const lost = scanState(scanLogOf(eventsAfter(id)), true);
    expect(lost.gateway).toBe("locked");
    expect(lost.trouble).toMatch(/network dropped/);
    await expect(commandScan("no-such-job", 0, "read", INES)).rejects.toThrow(JobRefusal);
  });
  it("reads nothing from the vehicle in the next bay, and says whose VIN it is and what to do", async () => {
    const id = takeIn(VAN, INES, { seed: "scan-next-bay" });
    await commandScan(id, 0, "read", INES);
    const [refused] = scanLogOf(eventsAfter(id));
    expect(refused).toMatchObject({ type: "refused", what: "read" });
    expect(scanState(scanLogOf(eventsAfter(id)), true)).toMatchObject({ baseline: null });
    const trouble = scanState(scanLogOf(eventsAfter(id)), true).trouble!;
    expect(trouble).toContain(`this job is of ${VAN.vin}`);
    expect(trouble).not.toContain(`reads VIN ${VAN.vin}`);
    // The plug was moved.
    await commandScan(id, 0, "read", INES);
    expect(scanLogOf(eventsAfter(id)).at(-1)).toMatchObject({ type: "read", vin: VAN.vin });

    // A VIN that was typed wrong, and accepted with that as the reason, stops nobody.
    const view = viewOf(findJob(id)!.ground, null);
    const scan = itemsOf(view, "ready").find((i) => i.measure?.kind === "scan")!;
    const accepted: EventBody = {
      kind: "check",
      stage: "ready",
      itemId: scan.id,
      outcome: "accepted",
      reason: "VIN typed wrong at take-in",
    };
    expect(otherCar(view, [], "0TMHRWLC4T310999")).toMatch(/another vehicle/);
    const wrong = "0TMHRWLC4T310999";
    const refusal: EventBody = {
      kind: "scan",
      event: {
        at: "2026-11-03T09:00:00.000Z",
        type: "refused",
        what: "read",
        reason: "",
        vin: wrong,
      },
    };
    expect(otherCar(view, logOf(view, refusal, accepted), wrong)).toBeNull();
    // Accepted beforehand it was for something else.
    expect(otherCar(view, logOf(view, accepted, refusal), wrong)).toMatch(/another vehicle/);
    expect(otherCar(view, logOf(view, refusal, accepted), `${wrong.slice(0, -1)}8`)).toMatch(
      /another vehicle/,
    );
  });
  it("offers no sign-in to a vehicle without a gateway", async () => {
    const id = takeIn(
      {
        ...VAN,
        vin: madeUpVin("0NVLS2DA7R100417"),
        vehicleId: "norvane-lisse",
        sheetId: "lisse-forward",
        sheetVersion: 2,
      },
      INES,
    );
    await expect(commandScan(id, 0, "sign-in", INES)).rejects.toThrow(/no gateway/);
  });
});

describe("readying a job in the simulated bay", () => {
  it("measures, puts right what is off, and leaves a record of both", async () => {
    const hands = technician(INES, new Date(Date.now() - 7200_000).toISOString());
    hands.open(VAN, "ready-van");
    await hands.check("ready", { "baseline-scan": "known" });
    const events = eventsAfter(hands.jobId);
    const tyres = eventsOf(events, "measured").filter((e) => e.body.itemId === "tyres");
    const outcomes = eventsOf(events, "check")
      .filter((e) => e.body.itemId === "tyres")
      .map((e) => e.body.outcome);
    const righted = eventsOf(events, "put-right").filter((e) => e.body.itemId === "tyres").length;
    expect(tyres).toHaveLength(righted + 1);
    expect(outcomes).toEqual([righted > 0 ? "fixed" : "fine"]);
    const job = findJob(hands.jobId)!;
    const view = viewOf(job.ground, null);
    expect(holdReadiness(job, view, events, "light")).toBeNull();
    expect(Object.keys(holdReadiness(job, view, events, "floor")!)).toEqual([
      "FL",
      "FR",
      "RL",
      "RR",
      "stand",
      "stand-2",
    ]);
    expect((await scanOnce(job, events, "volts", 0)).type).toBe("volts");
  });
});

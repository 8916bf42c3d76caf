import { describe, expect, it } from "vitest";
import { scanState, type FaultCode, type ModuleReading, type ScanEvent } from ".";

const at = (s: number): string => new Date(Date.UTC(2026, 10, 3, 9, 0, s)).toISOString();
const code = (name: string, state: FaultCode["state"] = "stored"): FaultCode => ({
  code: name,
  state,
  text: "made up",
});
const unit = (name: string, codes: FaultCode[] = [], answers = true): ModuleReading => ({
  id: name,
  name,
  system: null,
  answers,
  codes,
});
const read = (s: number, modules: ModuleReading[], volts = 12.6): ScanEvent => ({
  at: at(s),
  type: "read",
  volts,
  modules,
});
const gateway = (
  s: number,
  state: "signed-in" | "refused" | "lost",
  reason: string | null = null,
): ScanEvent => ({ at: at(s), type: "gateway", state, reason });

describe("scans", () => {
  it("keep the first reading as the baseline for good", () => {
    const log = [
      read(1, [unit("Body", [code("BD-212")])]),
      read(60, [unit("Body")]),
      read(90, [unit("Body")]),
    ];
    const s = scanState(log, false);
    expect(s.baseline!.at).toBe(at(1));
    expect(s.last!.at).toBe(at(90));
    expect(s.gateway).toBe("none");
  });
  it("log the supply with every look", () => {
    const s = scanState(
      [
        read(0, [], 12.6),
        { at: at(30), type: "volts", volts: 12.5 },
        { at: at(60), type: "cleared", volts: 12.4 },
      ],
      false,
    );
    expect(s.voltsLog.map((p) => p.volts)).toEqual([12.6, 12.5, 12.4]);
    expect(s.voltsLog[2]!.atS - s.voltsLog[0]!.atS).toBe(60);
  });
});

describe("the gateway", () => {
  it.each<[string, ScanEvent[], "locked" | "open"]>([
    ["is locked at first", [], "locked"],
    ["opens by a sign-in", [gateway(1, "signed-in")], "open"],
    ["stays locked when the service refuses", [gateway(1, "refused", "no answer")], "locked"],
    [
      "locks again when the network drops",
      [gateway(1, "signed-in"), gateway(2, "lost", "dropped")],
      "locked",
    ],
    [
      "opens again after that",
      [gateway(1, "signed-in"), gateway(2, "lost"), gateway(3, "signed-in")],
      "open",
    ],
    ["is not opened by reading", [read(1, [])], "locked"],
  ])("%s", (_, log, expected) => {
    expect(scanState(log, true).gateway).toBe(expected);
    // A vehicle without a gateway is never locked, whatever was logged.
    expect(
      scanState(
        log.filter((e) => e.type !== "gateway" || e.state !== "signed-in"),
        false,
      ).gateway,
    ).toBe("none");
  });
  it("keeps the last trouble until something succeeds", () => {
    const refused: ScanEvent = {
      at: at(5),
      type: "refused",
      what: "clear",
      reason: "sign in first",
    };
    expect(scanState([refused], true).trouble).toBe("sign in first");
    expect(scanState([refused, gateway(6, "signed-in")], true).trouble).toBeNull();
    expect(scanState([refused, read(7, [])], true).trouble).toBeNull();
    expect(scanState([refused, { at: at(8), type: "volts", volts: 12 }], true).trouble).toBe(
      "sign in first",
    );
  });
});

import { describe, expect, it } from "vitest";
import { isOver, toolEnds, toolEndWords, toolSchema, type ShopTool } from "./tool";

const TOOL: ShopTool = {
  id: "D-1",
  name: "Scan tool 1",
  serial: "SIM-0412",
  software: "0.1",
  softwareOn: "2026-10-01",
  updateEveryDays: 60,
  paidUntil: "2027-05-31",
  gatewayUntil: "2026-11-05",
};
const of = (today: string, gateway = true) =>
  toolEnds(TOOL, today, gateway).map((e) => [e.what, e.days, isOver(e)]);

describe("a scan tool of the shop", () => {
  it("is spoken of from a fortnight before an end on, the most pressing first", () => {
    expect(of("2026-10-22")).toEqual([]);
    expect(of("2026-10-23")).toEqual([["gateway", 13, false]]);
    expect(of("2026-11-05")).toEqual([["gateway", 0, false]]);
    expect(of("2026-11-06")).toEqual([["gateway", -1, true]]);
    expect(of("2026-11-20")).toEqual([
      ["gateway", -15, true],
      ["software", 10, false],
    ]);
    expect(of("2026-12-01")).toContainEqual(["software", -1, true]);
  });
  it("leaves the gateway out where the vehicle has none, and says so where it never was registered", () => {
    expect(of("2026-11-06", false)).toEqual([]);
    const never = toolEnds({ ...TOOL, gatewayUntil: null }, "2026-10-05", true);
    expect(never).toEqual([{ toolId: "D-1", what: "gateway", days: null }]);
    expect(toolEndWords(TOOL, never[0]!)).toMatch(/^not registered/);
  });
  it("says when, what it means, and by which day", () => {
    const said = (today: string): string[] =>
      toolEnds(TOOL, today, true).map((e) => toolEndWords(TOOL, e));
    expect(said("2026-11-04")[0]).toMatch(/ends .*, tomorrow$/);
    expect(said("2026-11-07")[0]).toMatch(/ended .*: this vehicle will refuse/);
    expect(said("2026-12-03").join()).toMatch(/was due to be renewed 3 days ago/);
  });
  it("needs its software named, and days that are days", () => {
    expect(toolSchema.safeParse(TOOL).success).toBe(true);
    for (const change of [{ software: "" }, { softwareOn: "soon" }, { updateEveryDays: 0 }])
      expect(toolSchema.safeParse({ ...TOOL, ...change }).success).toBe(false);
  });
});

import { describe, expect, it } from "vitest";
import { isDone } from "@/core/sheet/methods";
import { SHEETS } from "@/demo/data/sheets";
import { sheetSchema } from "@/core/sheet";
import { doesLine } from "./owed";
import { soonerOf, untilDone } from "./sooner";

const either = SHEETS.find((s) => s.id === "tarn-forward-road")!;
const road = SHEETS.find((s) => s.id === "lisse-forward-road")!;

describe("in the bay or on the road", () => {
  it("is done by what its sheet asks for", () => {
    const ways = [
      { bay: false, road: false },
      { bay: true, road: false },
      { bay: false, road: true },
      { bay: true, road: true },
    ];
    const done = (method: (typeof SHEETS)[number]["method"]) => ways.map((w) => isDone(method, w));
    expect(done("static")).toEqual([false, true, false, true]);
    expect(done("static-or-dynamic")).toEqual([false, true, true, true]);
    expect(done("static-then-dynamic")).toEqual([false, false, false, true]);
    expect(done("dynamic")).toEqual([false, false, false, true]);
  });
  it("does the line that is owed either way, and a drive alone the one on the road", () => {
    const line = (kind: "static" | "dynamic" | "learn") => ({
      system: "forward-camera" as const,
      kind,
    });
    expect(doesLine(either, line("static"))).toBe(true);
    expect(doesLine(either, line("dynamic"))).toBe(true);
    expect(doesLine(either, line("learn"))).toBe(false);
    expect(doesLine(road, line("static"))).toBe(false);
    expect(doesLine(road, line("dynamic"))).toBe(true);
  });
  it("reckons what fails once more, with what it waits for, by hand", () => {
    expect(untilDone({ waitMin: 10, minutes: 30, chance: 0.75 })).toBe(50);
    const bay = { waitMin: 0, minutes: 40, chance: 0.8 };
    expect(soonerOf(bay, { waitMin: 0, minutes: 20, chance: 0.8 })).toEqual({
      is: "road",
      byMin: 25,
    });
    expect(soonerOf(bay, { waitMin: 120, minutes: 20, chance: 1 })).toEqual({
      is: "bay",
      byMin: 90,
    });
    expect(soonerOf({ lacks: "no board" }, bay)).toEqual({ is: "road", byMin: null });
    expect(soonerOf({ lacks: "no board" }, { lacks: "dark" })).toBeNull();
    expect(soonerOf(bay, { waitMin: 0, minutes: 20, chance: 0 })!.is).toBe("bay");
  });
});

describe("a sheet that is learned on the road alone", () => {
  it("has no routine of the bay, and any other has one", () => {
    const look = either.run.find((s) => s.kind === "routine")!;
    const says = (sheet: object): string =>
      sheetSchema
        .safeParse(sheet)
        .error?.issues.map((i) => i.message)
        .join() ?? "";
    expect(says(road)).toBe("");
    expect(says({ ...road, run: [...road.run, look] })).toMatch(/is of the bay/);
    expect(says({ ...either, run: [either.run[0]!] })).toMatch(/must contain the routine/);
  });
});

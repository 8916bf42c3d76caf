import { expect, it } from "vitest";
import { firstTarget, sheetSchema, targetsOf, type Sheet } from "@/core/sheet";
import { SHEETS } from "@/demo/data/sheets";
import { everywhere } from "./everywhere";

const near = SHEETS.find((s) => s.setups.length > 1)!;
const pair = SHEETS.find((s) => s.setups.some((x) => x.targets.length > 1))!;

it.each([near, pair])("what the page asks once holds for every place: $id", (sheet) => {
  const setups = everywhere(sheet, "datum", "rear-axle-normal") as Sheet["setups"];
  const turned = sheetSchema.parse({ ...sheet, setups });
  expect(targetsOf(turned).map((t) => t.datum)).toEqual(
    targetsOf(sheet).map(() => "rear-axle-normal"),
  );
  // All else is as it was, in each of them.
  const back = everywhere(turned, "datum", firstTarget(sheet).datum);
  expect(back).toEqual(sheet.setups);
});
it("takes a field away everywhere, and makes one that is deeper", () => {
  const lean = everywhere(near, "tolerance.pitchDeg", 0.5) as Sheet["setups"];
  expect(lean.map((s) => s.targets[0]!.tolerance.pitchDeg)).toEqual([0.5, 0.5]);
  expect(everywhere({ ...near, setups: lean }, "tolerance.pitchDeg", undefined)).toEqual(
    near.setups,
  );
  expect(everywhere({}, "datum", "thrust")).toEqual([]);
});

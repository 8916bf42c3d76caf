import { expect, it } from "vitest";
import { clockOf, minuteOfText } from "./minute";

it("a time of day is read as it is typed, and shown as a clock shows it", () => {
  for (let m = 0; m < 1440; m += 7) expect(minuteOfText(clockOf(m))).toBe(m);
  expect(["8:05", "8.05", "805", " 08:05 "].map(minuteOfText)).toEqual([485, 485, 485, 485]);
  expect(["24:00", "8:60", "half four", "", "8"].map(minuteOfText)).toEqual(Array(5).fill(null));
  expect(clockOf(1500)).toBe("01:00");
});

import { describe, expect, it } from "vitest";
import type { DrivePlan } from "./plan";
import { whyWords } from "./why";

const leg = (name: string, seen: number, lon: number): DrivePlan["legs"][number] => ({
  name,
  points: [
    [lon, 56],
    [lon + 0.01, 56],
  ],
  limitMps: 20,
  lines: { left: { kind: "solid", seen }, right: { kind: "broken", seen } },
  traffic: [],
  end: { control: "none", redShare: 0, redS: 40, turnDeg: 0, round: false },
});
const plan = (more: Partial<DrivePlan>, rain: number | null = 0): DrivePlan => ({
  departMs: 0,
  doneS: 600,
  seconds: 900,
  leastS: 600,
  band: [800, 1000],
  chance: 0.9,
  metres: 9000,
  legs: [
    leg("Ring 3", 0.9, 1),
    leg("Ring 4", 0.9, 1.01),
    leg("Quay", 0.95, 1.02),
    leg("Hill", 0.3, 2),
  ],
  expected: [],
  names: [],
  barred: [],
  glare: 0,
  weather: rain === null ? null : { fromMs: 0, rain, fog: 0, snow: 0, wet: 0, cloud: 0 },
  ...more,
});

describe("why a drive is as it is", () => {
  it("names the road with both lines that it is longest on, and nothing that is alike everywhere", () => {
    expect(whyWords(plan({}), [plan({})])).toBe("both lines on Ring");
    expect(whyWords(plan({ legs: [leg("Hill", 0.3, 1)] }), [])).toBe("");
  });
  it("says what other hours are worse in, and what this one is", () => {
    const wet = plan({}, 0.4);
    const low = plan({ glare: 0.2 });
    expect(whyWords(plan({}), [wet, low])).toBe("sun off the lens, dry, both lines on Ring");
    expect(whyWords(wet, [wet])).toBe("rain 40 % of the time, both lines on Ring");
    expect(whyWords(low, [low])).toMatch(
      /^round the low sun, which stands ahead on 20 % of the good roads/,
    );
    const into = plan({ barred: [{ kind: "sun", seconds: 150 }] });
    expect(whyWords(into, [into])).toMatch(/^the sun stands in the lens for 3 min/);
    // Of weather that nobody knows nothing is said.
    expect(whyWords(plan({}, null), [wet])).toBe("both lines on Ring");
  });
});

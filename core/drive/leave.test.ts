import { describe, expect, it } from "vitest";
import { adviceOn, REST_LIMIT_S } from "./advice";
import { GATEWAY_BEARS_S, GATEWAY_OPEN, watchGateway, type GatewayWatch } from "./gateway";
import { ANY_DRIVE, leavingProblem, mayKeep, type Leaving } from "./policy";
import { DRIVE_START } from "./qualify";
import { driveRulesSchema } from "./rules";

const ready: Leaving = {
  drove: "Oskar",
  keeps: "foot",
  hotspot: true,
  rains: false,
  rainReason: "",
};
const needs = { gateway: true, keeps: undefined, policy: ANY_DRIVE };

describe("leaving for a drive", () => {
  it.each([
    ["nobody drives", { drove: " " }, {}, /who drives/],
    ["the gateway has no hotspot", { hotspot: false }, {}, /without a hotspot/],
    ["nobody says how the speed is kept", { keeps: null }, {}, /how the speed is kept/],
    [
      "the shop keeps it otherwise",
      {},
      { policy: { ...ANY_DRIVE, keeps: ["cruise", "limiter"] } },
      /the shop allows cruise control or limiter/,
    ],
    ["the sheet keeps it otherwise", {}, { keeps: ["cruise"] }, /the sheet allows cruise control/],
    ["it rains and nobody says why", { rains: true }, {}, /say why/],
    [
      "the shop drives in no rain",
      { rains: true, rainReason: "customer waits" },
      { policy: { ...ANY_DRIVE, rain: "refused" } },
      /does not drive to learn in rain/,
    ],
  ] as const)("is refused where %s", (_, leaving, more, words) => {
    const problem = leavingProblem({ ...ready, ...leaving }, {
      ...needs,
      ...more,
    } as typeof needs);
    expect(problem).toMatch(words);
  });
  it("goes where all is said, and the sheet's word comes before the shop's", () => {
    expect(leavingProblem(ready, needs)).toBeNull();
    expect(leavingProblem({ ...ready, hotspot: false }, { ...needs, gateway: false })).toBeNull();
    expect(
      leavingProblem({ ...ready, rains: true, rainReason: "no dry day left" }, needs),
    ).toBeNull();
    const cruise = { keeps: ["cruise" as const], rain: "refused" as const };
    expect(mayKeep(undefined, cruise)).toEqual(["cruise"]);
    expect(mayKeep(["foot", "limiter"], cruise)).toEqual(["limiter", "foot"]);
  });
});

describe("the gateway's session", () => {
  const after = (online: readonly (boolean | null)[]): GatewayWatch =>
    online.reduce((w, is, s) => watchGateway(w, s * 1000, is), GATEWAY_OPEN);
  const away = (s: number): boolean[] => Array<boolean>(s).fill(false);
  it("bears an outage, counts it down, and ends with one that is too long", () => {
    expect(after([true, ...away(61)]).session).toEqual({
      is: "holding",
      leftS: GATEWAY_BEARS_S - 60,
    });
    expect(after([true, ...away(GATEWAY_BEARS_S)]).session.is).toBe("holding");
    const ended = after([true, ...away(GATEWAY_BEARS_S + 1), true, true]);
    expect(ended.session).toEqual({ is: "ended", atMs: (GATEWAY_BEARS_S + 1) * 1000 });
  });
  it("begins anew when the network was back, and what is not known changes nothing", () => {
    expect(after([...away(100), true, ...away(100)]).session.is).toBe("holding");
    expect(after([null, null]).session.is).toBe("open");
    expect(after([false, null, null, false]).session).toEqual({
      is: "holding",
      leftS: GATEWAY_BEARS_S - 3,
    });
  });
});

describe("whether to give a drive up", () => {
  const rules = driveRulesSchema.parse({
    conditions: [{ kind: "speed", unit: "km/h", min: 50, max: 100, breach: "pauses" }],
    enough: { seconds: 600 },
    timeOutS: 3600,
  });
  // Half of its seconds count, by plan: 1 200 s, of which 600 and a reserve of 30 come in evenly.
  const plan = {
    seconds: 1260,
    metres: 21_000,
    expected: Array.from({ length: 42 }, (_, i) => ({
      seconds: (i + 1) * 30,
      countS: (i + 1) * 15,
      countM: 0,
    })),
  };
  const at = (seconds: number) => ({ ...DRIVE_START, status: "paused" as const, seconds });
  it("says nothing at first, and nothing of a drive that goes as planned", () => {
    expect(adviceOn(plan, rules, at(10), 60)).toBeNull();
    expect(adviceOn(plan, rules, at(300), 600)).toMatchObject({
      restS: 660,
      lacksS: 0,
      giveUp: null,
    });
    expect(adviceOn(plan, rules, { ...at(600), status: "done" }, 1200)).toBeNull();
  });
  it("reckons what has to be driven once more at the pace so far", () => {
    // 100 of 300 came in; 330 more are on the way: 170 lack, at (100 + 90) / (600 + 180) of a second each.
    const is = adviceOn(plan, rules, { ...at(100), cost: { weather: 400, lines: 100 } }, 600)!;
    expect(is.lacksS).toBe(170);
    expect(is.restS).toBeCloseTo(660 + 170 / (190 / 780), 6);
    expect(is).toMatchObject({ giveUp: null, dearest: "weather" });
  });
  it("advises it when the rest is too long, and when the vehicle's time will be over before", () => {
    expect(adviceOn(plan, rules, at(0), 900)!.restS).toBeGreaterThan(REST_LIMIT_S);
    expect(adviceOn(plan, { ...rules, timeOutS: undefined }, at(0), 900)!.giveUp).toBe("too-long");
    expect(adviceOn(plan, { ...rules, timeOutS: 1100 }, at(300), 600)!.giveUp).toBe("time-out");
  });
});

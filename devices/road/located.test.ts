import { describe, expect, it } from "vitest";
import { looksOf } from "@/core/drive/look";
import { LocatedReceiver } from "./located";
import type { Heard } from "./receiver";

type Tell = (p: GeolocationPosition) => void;

/** A tablet that is told where it is by a test. */
function tablet(online = true) {
  let [tell, fail]: [Tell, (e: GeolocationPositionError) => void] = [() => {}, () => {}];
  let watching = false;
  const locator = {
    watchPosition: (hear: Tell, trouble?: PositionErrorCallback | null) => {
      [tell, fail, watching] = [hear, trouble!, true];
      return 7;
    },
    clearWatch: () => void (watching = false),
  };
  const receiver = new LocatedReceiver(locator, looksOf("forward-camera"), () => online);
  const heard: Heard[] = [];
  const said: string[] = [];
  const stop = receiver.listen(
    (h) => heard.push(...h),
    () => said.push("over"),
    (why) => said.push(why),
  );
  const fix = (s: number, lon: number, lat: number, coords: Partial<GeolocationCoordinates> = {}) =>
    tell({
      timestamp: Date.UTC(2026, 5, 21, 12) + s * 1000,
      coords: { longitude: lon, latitude: lat, speed: null, heading: null, ...coords },
    } as GeolocationPosition);
  return {
    receiver,
    heard,
    said,
    fix,
    fail: (code: number) => fail({ code } as GeolocationPositionError),
    stop,
    watching: () => watching,
  };
}
/** Metres to the north as degrees. */
const north = (m: number): number => m / 111_195;

describe("the tablet's own receiver", () => {
  it("works out speed, heading and curve where the device does not say them", () => {
    const t = tablet();
    for (let s = 0; s < 4; s++) t.fix(s, 1.9, 56.4 + north(20 * s));
    const last = t.heard.at(-1)!;
    expect(last.sample.speedMps).toBeCloseTo(20, 1);
    expect(last.headingDeg).toBeCloseTo(0, 3);
    expect(last.sample.radiusM).toBe("straight");
    // Ten degrees on 20 m: a curve of 115 m.
    t.fix(4, 1.9, 56.4 + north(80), { heading: 10, speed: 19 });
    expect(t.heard.at(-1)!.sample.speedMps).toBe(19);
    expect(t.heard.at(-1)!.sample.radiusM).toBeCloseTo(20 / (10 * (Math.PI / 180)), 0);
  });
  it("knows of lines and sky what is said, of what is ahead nothing, and of the sun where it stands", () => {
    const t = tablet(false);
    t.fix(0, 1.9, 56.4, { heading: 180, speed: 20 });
    const { sample, online } = t.heard[0]!;
    expect(sample).toMatchObject({
      lines: null,
      weather: null,
      gapM: null,
      keyOn: null,
      light: "day",
    });
    expect(online).toBe(false);
    // At noon of midsummer the sun stands some 57 degrees high in the south, the camera looks 2 down.
    expect(sample.sunOffDeg).toBeGreaterThan(54);
    expect(sample.sunOffDeg).toBeLessThan(62);
    t.receiver.say({ lines: { left: "solid", right: "none" }, sky: "rain" });
    t.fix(1, 1.9, 56.4 - north(20), { heading: 180, speed: 20 });
    expect(t.heard[1]!.sample).toMatchObject({
      lines: { left: "solid", right: "none" },
      weather: ["rain", "wet-road"],
      sunOffDeg: 180,
    });
  });
  it("goes on where it does not know its place, ends where nobody may know it, and can be stopped", () => {
    const t = tablet();
    t.fail(2);
    t.fix(0, 1.9, 56.4);
    expect(t.said).toEqual(["no-place"]);
    expect(t.heard).toHaveLength(1);
    t.fail(1);
    expect(t.said).toEqual(["no-place", "refused", "over"]);
    t.stop();
    expect(t.watching()).toBe(false);
  });
});

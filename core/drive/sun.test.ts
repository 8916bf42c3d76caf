import { describe, expect, it } from "vitest";
import { glareMinutes, sunAt, sunOffDeg } from "./sun";

const RAD = Math.PI / 180;

/**
 * The sun by the low-precision formulas of the Astronomical Almanac, without the air: written out here so
 * that nothing is shared with what it checks.
 */
function almanac(atMs: number, latDeg: number, lonDeg: number): { az: number; alt: number } {
  const n = atMs / 86_400_000 + 2440587.5 - 2451545;
  const g = (357.528 + 0.9856003 * n) * RAD;
  const lambda = (280.46 + 0.9856474 * n + 1.915 * Math.sin(g) + 0.02 * Math.sin(2 * g)) * RAD;
  const epsilon = (23.439 - 0.0000004 * n) * RAD;
  const ra = Math.atan2(Math.cos(epsilon) * Math.sin(lambda), Math.cos(lambda));
  const dec = Math.asin(Math.sin(epsilon) * Math.sin(lambda));
  const gmst = (280.46061837 + 360.98564736629 * n) * RAD;
  const hour = gmst + lonDeg * RAD - ra;
  const lat = latDeg * RAD;
  const alt = Math.asin(
    Math.sin(lat) * Math.sin(dec) + Math.cos(lat) * Math.cos(dec) * Math.cos(hour),
  );
  const az = Math.atan2(
    -Math.cos(dec) * Math.sin(hour),
    Math.sin(dec) * Math.cos(lat) - Math.cos(dec) * Math.cos(hour) * Math.sin(lat),
  );
  return { az: (az / RAD + 360) % 360, alt: alt / RAD };
}

describe("the sun", () => {
  it("stands where the published algorithm's own example has it", () => {
    // Reda & Andreas 2004, table A5: zenith 50.11162, azimuth 194.34024 degrees.
    const at = Date.UTC(2003, 9, 17, 19, 30, 30);
    const sun = sunAt(at, 39.742476, -105.1786);
    expect(Math.abs(90 - sun.altitudeDeg - 50.11162)).toBeLessThan(0.05);
    expect(Math.abs(sun.azimuthDeg - 194.34024)).toBeLessThan(0.05);
  });
  it("goes with the almanac all over the year, the globe and the day, but for what the air bends", () => {
    for (let n = 0; n < 400; n++) {
      const at = Date.UTC(2026, 0, 1) + n * 21.9 * 3_600_000;
      const [lat, lon] = [((n * 37) % 120) - 60, ((n * 83) % 360) - 180];
      const [sun, plain] = [sunAt(at, lat, lon), almanac(at, lat, lon)];
      if (plain.alt < 5 || plain.alt > 85) continue;
      const air = 1.02 / 60 / Math.tan((plain.alt + 10.3 / (plain.alt + 5.11)) * RAD);
      expect(Math.abs(sun.altitudeDeg - plain.alt - air)).toBeLessThan(0.05);
      const aside = Math.abs(((sun.azimuthDeg - plain.az + 540) % 360) - 180);
      expect(aside * Math.cos(plain.alt * RAD)).toBeLessThan(0.05);
    }
  });
});

describe("the sun in the lens", () => {
  const low = { azimuthDeg: 90, altitudeDeg: 10 };
  const level = { headingDeg: 90, slopeDeg: 0 };
  it("is as far off as heading, slope and the camera's own turn leave it", () => {
    expect(sunOffDeg(low, level)).toBeCloseTo(10, 9);
    expect(sunOffDeg(low, { ...level, slopeDeg: 4 })).toBeCloseTo(6, 9);
    expect(sunOffDeg(low, { ...level, downDeg: 3 })).toBeCloseTo(13, 9);
    expect(sunOffDeg(low, { ...level, headingDeg: 270 })).toBeCloseTo(170, 9);
    // A camera on vehicle left looks east while the vehicle drives south; a climb tips it to neither.
    expect(sunOffDeg(low, { headingDeg: 180, slopeDeg: 6, turnDeg: 90 })).toBeCloseTo(10, 9);
    // To the rear a climb lowers it.
    expect(sunOffDeg(low, { headingDeg: 270, slopeDeg: 4, turnDeg: 180 })).toBeCloseTo(14, 9);
    const square = Math.acos(Math.cos(20 * RAD) * Math.cos(10 * RAD)) / RAD;
    expect(sunOffDeg(low, { ...level, headingDeg: 70 })).toBeCloseTo(square, 9);
    expect(sunOffDeg({ azimuthDeg: 90, altitudeDeg: -0.1 }, level)).toBe(180);
  });

  // An island in the north; the shortest day, and a day in spring.
  const place = { latDeg: 54.4, lonDeg: -4.5 };
  it.each([
    ["winter", Date.UTC(2026, 11, 21)],
    ["spring", Date.UTC(2026, 2, 20)],
  ])("takes as many minutes of a day in %s as the almanac's sun spends in the cone", (_, day) => {
    const cone = 22;
    const minutes = [0, 90, 180, 270].map((headingDeg) => {
      let byHand = 0;
      for (let m = 0; m < 1440; m++) {
        const { az, alt } = almanac(day + (m + 0.5) * 60_000, place.latDeg, place.lonDeg);
        // What the air lifts over the horizon counts too.
        const seen =
          alt + 1.02 / 60 / Math.tan((Math.max(alt, 0) + 10.3 / (Math.max(alt, 0) + 5.11)) * RAD);
        const cos = Math.cos(seen * RAD) * Math.cos((az - headingDeg) * RAD);
        if (seen > 0 && Math.acos(cos) / RAD <= cone) byHand++;
      }
      const found = glareMinutes(day, day + 86_400_000, place, { headingDeg, slopeDeg: 0 }, cone);
      expect(Math.abs(found - byHand)).toBeLessThanOrEqual(4);
      return byHand;
    });
    // Nobody is blinded to the north; to the south only where the sun stays low.
    expect(minutes[0]).toBe(0);
    expect(minutes[2]! > 0).toBe(day === Date.UTC(2026, 11, 21));
    // In spring it rises due east and sets due west.
    if (minutes[2] === 0) expect(Math.min(minutes[1]!, minutes[3]!)).toBeGreaterThan(60);
  });
});

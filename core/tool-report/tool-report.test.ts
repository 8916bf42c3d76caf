import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fieldsIn, mappingFor, readReport, type ToolMapping } from ".";

const TAUGHT: ToolMapping = {
  id: "bench-tool",
  name: "Bench tool",
  outcome: { label: "Result", passed: "OK" },
  quality: { label: "Score", of: 1 },
  yaw: { label: "Azimuth", unit: "arcmin", flipped: true },
  pitch: { label: "Elevation", unit: "deg", flipped: false },
  reason: { label: "Cause" },
  vin: { label: "Chassis" },
};

const LINES = `Made-up tool, session 12
Chassis:   0NVL S2DA 97R1 00701
Result ....... OK
Score = 0.93
Azimuth\t-12,5'
Elevation:  0.20 deg
`;

describe("a report of a shop's own tool", () => {
  it("says the same as lines, as a table of two columns, and as a head with its last row", () => {
    const pairs = [
      ["Chassis", "0NVLS2DA97R100701"],
      ["Result", "OK"],
      ["Score", "0.93"],
      ["Azimuth", "-12,5"],
      ["Elevation", "0.2"],
    ];
    const two = pairs.map(([a, b]) => `${a};"${b}"`).join("\r\n");
    const wide = [
      pairs.map((p) => p[0]).join(","),
      pairs.map(() => "old").join(","),
      pairs.map((p) => `"${p[1]}"`).join(","),
    ].join("\n");
    for (const text of [LINES, two, `\ufeff${wide}\n`]) {
      const read = readReport(fieldsIn(text), TAUGHT);
      expect(read).toMatchObject({ ok: true, vin: "0NVLS2DA97R100701" });
      if (!read.ok) continue;
      expect(read.result).toMatchObject({ passed: true, reason: null });
      expect(read.result.qualityPercent).toBeCloseTo(93, 9);
      expect(read.result.learnedYawDeg).toBeCloseTo(12.5 / 60, 9);
      expect(read.result.learnedPitchDeg).toBeCloseTo(0.2, 9);
      expect(read.result.learnedRollDeg).toBeUndefined();
    }
  });
  it("that refused needs no angles, and brings its cause", () => {
    const read = readReport(fieldsIn("Result: NOK\nCause: target not found"), TAUGHT);
    expect(read).toMatchObject({
      ok: true,
      result: { passed: false, qualityPercent: 0, reason: "target not found" },
    });
  });
  it("is not guessed at: a line that is missing, no figure, or cannot be meant is named", () => {
    const said = (text: string) => {
      const read = readReport(fieldsIn(text), TAUGHT);
      return read.ok ? null : read.problem;
    };
    expect(said("Score: 0.9\nAzimuth: 1")).toMatch(/no line “Result”/);
    expect(said("Result: OK\nScore: 0.9\nAzimuth: 3")).toMatch(/no line “Elevation”/);
    expect(said("Result: OK\nScore: good\nAzimuth: 3\nElevation: 0")).toMatch(/“Score” is “good”/);
    expect(said("Result: OK\nScore: 93\nAzimuth: 3\nElevation: 0")).toMatch(/makes 9300 %/);
    expect(said("Result: OK\nScore: 0.9\nAzimuth: 3\nElevation: 90")).toMatch(/cannot be meant/);
  });
  it("is read by the tool whose lines it has, the one that was taught most", () => {
    const plain: ToolMapping = {
      id: "plain",
      name: "Plain",
      outcome: { label: "Result", passed: "OK" },
    };
    expect(mappingFor(fieldsIn(LINES), [plain, TAUGHT])?.id).toBe("bench-tool");
    expect(mappingFor(fieldsIn("Result: OK\nOther: 3"), [TAUGHT, plain])?.id).toBe("plain");
    expect(mappingFor(fieldsIn("nothing here"), [TAUGHT, plain])).toBeNull();
  });
  it("may be any text: it gives fields with a name and a value, or none", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 400 }), (text) => {
        for (const f of fieldsIn(text)) {
          expect(f.label.length * f.value.length).toBeGreaterThan(0);
          expect(f.label.length).toBeLessThanOrEqual(80);
        }
      }),
    );
  });
});

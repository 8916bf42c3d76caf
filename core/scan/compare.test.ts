import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { askedOf, compareScans, type FaultCode, type ModuleReading, type ScanEvent } from ".";

type Read = Extract<ScanEvent, { type: "read" }>;
const STATES = ["stored", "pending", "history"] as const;
const AT = "2026-11-03T09:00:00.000Z";
const read = (modules: ModuleReading[]): Read => ({ at: AT, type: "read", volts: 12.6, modules });
const code = (name: string, state: FaultCode["state"] = "stored"): FaultCode => ({
  code: name,
  state,
  text: `text of ${name}`,
});
const unit = (
  id: string,
  codes: FaultCode[] = [],
  answers = true,
  system: ModuleReading["system"] = null,
): ModuleReading => ({ id, name: id.toUpperCase(), system, answers, codes });

describe("codes before against codes after", () => {
  it("names what is gone, what stayed and what came, unit by unit", () => {
    const before = read([
      unit("body", [code("B1", "history")]),
      unit("cam", [code("C1"), code("C2")]),
    ]);
    const after = read([
      unit("body", [code("B1", "history")]),
      unit("cam", [code("C2", "pending")]),
      unit("steer", [code("S1", "pending")]),
    ]);
    const rows = compareScans(before, after, []);
    expect(
      rows.flatMap((u) => u.codes.map((c) => [u.id, c.code, c.change, c.before, c.after])),
    ).toEqual([
      ["body", "B1", "stayed", "history", "history"],
      ["cam", "C2", "stayed", "stored", "pending"],
      ["cam", "C1", "gone", "stored", null],
      ["steer", "S1", "new", null, "pending"],
    ]);
    // History that stays is nobody's matter; what is still set, and what came, wants a word.
    expect(rows.flatMap(askedOf)).toEqual([
      { unit: "cam", code: "C2" },
      { unit: "steer", code: "S1" },
    ]);
  });

  it("parts a unit that fell silent from one that was silent, and both from one that is not there", () => {
    const [was, is] = [
      read([
        unit("a"),
        unit("b", [], false),
        unit("c", [code("X1")]),
        unit("d", [], false),
        unit("radar", [], false, "front-radar"),
      ]),
      read([
        unit("a"),
        unit("b"),
        unit("c", [], false),
        unit("d", [], false),
        unit("radar", [], false, "front-radar"),
      ]),
    ];
    const change = (fitted: readonly ["front-radar"] | readonly []) =>
      compareScans(was, is, fitted).map((u) => u.change);
    expect(change([])).toEqual(["answers", "found", "lost", "silent", "not-fitted"]);
    expect(change(["front-radar"])).toEqual(["answers", "found", "lost", "silent", "silent"]);
    // One that is silent now does not say that its code is gone.
    const rows = compareScans(was, is, []);
    expect(rows.find((u) => u.id === "c")!.codes).toEqual([]);
    expect(rows.flatMap(askedOf)).toEqual([
      { unit: "c", code: null },
      { unit: "d", code: null },
    ]);
  });

  it("says of what stands now that nobody looked before, and asks for a word only where it is set", () => {
    const after = read([unit("cam", [code("C1"), code("C2", "history")]), unit("x", [], false)]);
    const rows = compareScans(null, after, []);
    expect(rows.map((u) => u.change)).toEqual(["answers", "silent"]);
    expect(rows[0]!.codes.map((c) => c.change)).toEqual(["unread", "unread"]);
    expect(rows.flatMap(askedOf)).toEqual([
      { unit: "cam", code: "C1" },
      { unit: "x", code: null },
    ]);
  });

  it("accounts for every code of both readings once, and turned round swaps gone and new", () => {
    const units = fc.uniqueArray(
      fc.record({
        id: fc.constantFrom("a", "b", "c", "d"),
        answers: fc.boolean(),
        codes: fc.uniqueArray(
          fc.record({ code: fc.constantFrom("1", "2", "3"), state: fc.constantFrom(...STATES) }),
          { selector: (c) => c.code },
        ),
      }),
      { selector: (u) => u.id },
    );
    const made = (
      list: {
        id: string;
        answers: boolean;
        codes: { code: string; state: FaultCode["state"] }[];
      }[],
    ) =>
      read(
        list.map((u) =>
          unit(u.id, u.answers ? u.codes.map((c) => code(c.code, c.state)) : [], u.answers),
        ),
      );
    fc.assert(
      fc.property(units, units, (x, y) => {
        const [before, after] = [made(x), made(y)];
        const [there, back] = [compareScans(before, after, []), compareScans(after, before, [])];
        const has = (r: Read, id: string, c: string): boolean =>
          r.modules.some((m) => m.id === id && m.codes.some((k) => k.code === c));
        for (const u of there) {
          expect(new Set(u.codes.map((c) => c.code)).size).toBe(u.codes.length);
          for (const c of u.codes) {
            const [was, is] = [has(before, u.id, c.code), has(after, u.id, c.code)];
            expect(c.change).toBe(was && is ? "stayed" : is ? "new" : "gone");
          }
          const silent = after.modules.some((m) => m.id === u.id && !m.answers);
          const all = ["1", "2", "3"].filter(
            (c) => has(after, u.id, c) || (has(before, u.id, c) && !silent),
          );
          expect(u.codes.map((c) => c.code).sort()).toEqual(all);
        }
        const count = (rows: typeof there, change: string): number =>
          rows.flatMap((u) => u.codes).filter((c) => c.change === change).length;
        expect(count(back, "stayed")).toBe(count(there, "stayed"));
      }),
    );
  });
});

import { isDeepStrictEqual } from "node:util";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { differences, type Draft } from "@/core/book";
import { doubtfulFigures, draftProblems, readSheet, signSheet, type Sheet } from ".";

type Change = (s: Record<string, Record<string, unknown>>) => void;
const changed = (change: Change): Draft => {
  const copy = structuredClone(SHEETS[0]!) as unknown as Record<string, Record<string, unknown>>;
  change(copy);
  return copy as Draft;
};

/** Sheets with other figures, words, steps and cautions than the demo's, all of them valid. */
const anySheet = fc
  .record({
    base: fc.constantFrom(...SHEETS),
    version: fc.integer({ min: 1, max: 99 }),
    title: fc.string({ minLength: 3, maxLength: 120 }),
    alongMm: fc.double({ min: 600, max: 9000, noNaN: true }),
    acrossMm: fc.double({ min: -900, max: 900, noNaN: true }),
    twistDeg: fc.double({ min: 0.05, max: 4, noNaN: true }),
    cautions: fc.array(fc.string({ minLength: 3, maxLength: 60 }), { maxLength: 4 }),
    steps: fc.integer({ min: 1, max: 7 }),
  })
  .map(({ base, version, title, alongMm, acrossMm, twistDeg, cautions, steps }): Sheet => ({
    ...base,
    version,
    title,
    // JSON knows no negative zero.
    placement: { ...base.placement, alongMm, acrossMm: acrossMm + 0 },
    tolerance: { ...base.tolerance, twistDeg },
    cautions,
    run: [
      ...base.run.slice(0, steps - 1).filter((s) => s.kind !== "routine" && s.kind !== "position"),
      // A sheet with further places must move the board to each.
      ...base.run.filter((s) => s.kind === "position"),
      base.run.find((s) => s.kind === "routine")!,
    ],
  }));

describe("a sheet on its way", () => {
  it("survives export and import without losing anything", () => {
    fc.assert(
      fc.property(anySheet, (sheet) => {
        const back = readSheet(JSON.parse(JSON.stringify(sheet, null, 2)));
        expect(back).toEqual({ ok: true, sheet });
        expect(differences(sheet, back.ok && back.sheet)).toEqual([]);
      }),
    );
  });

  it.each<[string, Change, string, RegExp]>([
    [
      "metres for millimetres",
      (s) => (s.placement!.alongMm = 2.86),
      "placement.alongMm",
      /Typed in metres\? That would be 2860 mm/,
    ],
    [
      "centimetres for millimetres",
      (s) => (s.placement!.alongMm = 286 * 1.3),
      "placement.alongMm",
      /Typed in centimetres.*3718 mm/,
    ],
    [
      "inches for millimetres in the height",
      (s) => (s.placement!.heightMm = 149),
      "placement.heightMm",
      /Typed in (centimetres|inches)/,
    ],
    [
      "inches for millimetres in a tolerance",
      (s) => (s.tolerance!.heightMm = 0.5),
      "tolerance.heightMm",
      /Typed in (centimetres|inches)/,
    ],
    [
      "arc minutes for degrees",
      (s) => (s.tolerance!.twistDeg = 9),
      "tolerance.twistDeg",
      /arc minutes.*0\.15°/,
    ],
    ["no datum", (s) => delete (s as Record<string, unknown>).datum, "datum", /./],
    ["no tolerance across", (s) => delete s.tolerance!.acrossMm, "tolerance.acrossMm", /./],
    ["no source name", (s) => delete s.source!.name, "source.name", /./],
    [
      "no routine",
      (s) => ((s as Record<string, unknown>).run = [SHEETS[0]!.run[0]]),
      "run",
      /routine itself/,
    ],
  ])("with %s is held back, the field named", (_, change, field, message) => {
    const problems = draftProblems(changed(change));
    const found = problems.find((p) => p.field === field);
    expect(found, JSON.stringify(problems)).toBeDefined();
    expect(found!.message).toMatch(message);
    expect(() => signSheet(changed(change), 3, "Mara Quill", "2026-11-03")).toThrow(field);
  });

  it("does not ask for the second person's signature while it is written, and takes it when signed", () => {
    const draft = changed((s) => {
      delete s.source!.checkedBy;
      delete s.source!.checkedOn;
    });
    expect(draftProblems(draft)).toEqual([]);
    const signed = signSheet(draft, 7, "Mara Quill", "2026-11-03");
    expect(signed).toMatchObject({
      version: 7,
      source: { checkedBy: "Mara Quill", checkedOn: "2026-11-03" },
    });
    expect(() => signSheet(draft, 7, "Ines Tarbet", "2026-11-03")).toThrow(/second person/);
  });

  it("doubts no figure of the demo's own sheets, and never a figure inside what is meant", () => {
    for (const s of SHEETS) expect(doubtfulFigures(s)).toEqual([]);
    fc.assert(
      fc.property(anySheet, (s) => {
        expect(doubtfulFigures(s)).toEqual([]);
      }),
    );
  });
});

describe("what the schema refuses", () => {
  it.each([
    [(s: Draft) => delete s.title, "title", "is missing."],
    [(s: Draft) => (s.reason = ""), "reason", "is too short; at least 3 characters."],
    [
      (s: Draft) => ((s.placement as Draft).twistDeg = 50),
      "placement.twistDeg",
      "is too much; at most 45.",
    ],
    [(s: Draft) => (s.run = []), "run", "needs at least 1."],
    [
      (s: Draft) => (s.datum = "roof"),
      "datum",
      "must be one of centreline, rear-axle-normal, thrust.",
    ],
    [
      (s: Draft) => ((s.source as Draft).date = "last May"),
      "source.date",
      "must be a date such as 2026-11-03.",
    ],
    [(s: Draft) => ((s.board as Draft).widthMm = "wide"), "board.widthMm", "must be a number."],
    [
      (s: Draft) => (s.upright = "vehicle-plane"),
      "tolerance.pitchDeg",
      "is needed: the board is to stand square to the vehicle's plane.",
    ],
    [
      (s: Draft) =>
        (s.positions = [
          {
            id: "b",
            name: "by",
            placement: { alongMm: 2.6, acrossMm: 0, twistDeg: 0, heightMm: 1245 },
          },
        ]),
      "positions.0.placement.alongMm",
      "2.6 mm cannot be meant; it lies between 600 and 9000 mm. Typed in metres? That would be 2600 mm.",
    ],
  ] as [(s: Draft) => unknown, string, string][])(
    "is said in plain words (%#)",
    (change, field, message) => {
      const draft = structuredClone(SHEETS[0]!) as unknown as Draft;
      change(draft);
      expect(draftProblems(draft)).toContainEqual({ field, message });
    },
  );
});

describe("what changed between versions", () => {
  it("names each leaf by its path, both sides in words", () => {
    const next = structuredClone(SHEETS[0]!);
    next.version = 3;
    next.placement.alongMm = 2880;
    next.run[1]!.say = "Supply voltage, at the battery itself";
    next.prove = next.prove.slice(1);
    expect(differences(SHEETS[0], next)).toEqual([
      { path: "version", before: "2", after: "3" },
      { path: "placement.alongMm", before: "2860", after: "2880" },
      {
        path: "run.volts.say",
        before: "Supply voltage against the book",
        after: "Supply voltage, at the battery itself",
      },
      { path: "prove.rescan", before: expect.stringContaining("rescan") as string, after: "–" },
    ]);
  });
  it("shows a step put in front as one addition, and a changed order as a changed order", () => {
    const added = structuredClone(SHEETS[0]!);
    added.run.unshift({ id: "window", kind: "prompt", say: "Open the driver's window." });
    expect(differences(SHEETS[0], added).map((d) => d.path)).toEqual(["run.window"]);
    const turned = structuredClone(SHEETS[0]!);
    turned.ready.reverse();
    expect(differences(SHEETS[0], turned).map((d) => d.path)).toEqual(["ready"]);
  });
  it("reads a new list of things in words, not as a line of code", () => {
    const added = structuredClone(SHEETS[0]!);
    added.positions = [
      { id: "far", name: "the far place", placement: { ...added.placement, alongMm: 3900 } },
    ];
    const [only] = differences(SHEETS[0], added);
    expect(only).toMatchObject({ path: "positions", before: "–" });
    expect(only!.after).toBe(
      "id far, name the far place, placement alongMm 3900, acrossMm 0, twistDeg 0, heightMm 1245",
    );
  });
  it("is empty exactly for equal documents", () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (a, b) => {
        expect(differences(a, structuredClone(a))).toEqual([]);
        const [x, y] = [a, b].map((v) => JSON.parse(JSON.stringify(v)) as unknown);
        expect(differences(x, y).length === 0).toBe(isDeepStrictEqual(x, y));
      }),
    );
  });
});

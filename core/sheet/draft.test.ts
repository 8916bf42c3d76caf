import { isDeepStrictEqual } from "node:util";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { VEHICLES } from "@/demo/data/vehicles";
import { differences, type Draft } from "@/core/book";
import { followOwnLimits } from "@/core/setout";
import {
  doubtfulFigures,
  draftProblems,
  ownLimitWords,
  readSheet,
  signSheet,
  type Setup,
  type Sheet,
  type Target,
} from ".";

type Loose = Record<string, Record<string, unknown>>;
/** What is changed: the sheet, and its first target. */
type Change = (s: Loose, t: Loose) => void;
const FIRST = "setups.0.targets.0.";
const changed = (change: Change): Draft => {
  const copy = structuredClone(SHEETS[0]!);
  change(copy as unknown as Loose, copy.setups[0]!.targets[0] as unknown as Loose);
  return copy as unknown as Draft;
};

/** The first target of a draft. */
const firstOf = (s: Draft): Draft => (s.setups as { targets: Draft[] }[])[0]!.targets[0]!;

/** Sheets with other figures, words, steps and cautions than the demo's, all of them valid. */
const anySheet = fc
  .record({
    base: fc.constantFrom(...SHEETS),
    version: fc.integer({ min: 1, max: 99 }),
    title: fc.string({ minLength: 3, maxLength: 120 }),
    alongMm: fc.double({ min: 600, max: 9000, noNaN: true }),
    acrossMm: fc.double({ min: -900, max: 900, noNaN: true }),
    twistDeg: fc.double({ min: 0.05, max: 4, noNaN: true }),
    cautions: fc.array(
      fc.record({
        say: fc.string({ minLength: 3, maxLength: 60 }),
        when: fc.constantFrom("start", "wheels", "laser", "lift"),
      }),
      { maxLength: 4 },
    ),
    steps: fc.integer({ min: 1, max: 7 }),
  })
  .map(({ base, version, title, alongMm, acrossMm, twistDeg, cautions, steps }): Sheet => ({
    ...base,
    version,
    title,
    setups: base.setups.map((setup) => ({
      ...setup,
      targets: setup.targets.map((t) => ({
        ...t,
        // JSON knows no negative zero. A mark stays on its side, what lies or stands elsewhere than usual stays there.
        placement:
          t.kind === "mark" || t.lies || t.stands
            ? t.placement
            : { ...t.placement, alongMm, acrossMm: acrossMm + 0 },
        tolerance: t.kind === "mark" ? t.tolerance : { ...t.tolerance, twistDeg },
      })),
    })),
    cautions,
    run: [
      ...base.run
        .slice(0, steps - 1)
        .filter((s) => s.kind !== "routine" && s.kind !== "position" && s.kind !== "aim"),
      // A sheet with further places must move the board to each, one with two cameras aim both.
      ...base.run.filter((s) => s.kind === "position" || s.kind === "aim"),
      // What is learned on the road alone ends on what makes it ready.
      base.run.find((s) => s.kind === "routine") ?? base.run.at(-1)!,
    ].filter((s, i, all) => all.findIndex((o) => o.id === s.id) === i),
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
      (_, t) => (t.placement!.alongMm = 2.86),
      FIRST + "placement.alongMm",
      /Typed in metres\? That would be 2860 mm/,
    ],
    [
      "centimetres for millimetres",
      (_, t) => (t.placement!.alongMm = 286 * 1.3),
      FIRST + "placement.alongMm",
      /Typed in centimetres.*3718 mm/,
    ],
    [
      "inches for millimetres in the height",
      (_, t) => (t.placement!.heightMm = 149),
      FIRST + "placement.heightMm",
      /Typed in (centimetres|inches)/,
    ],
    [
      "inches for millimetres in a tolerance",
      (_, t) => (t.tolerance!.heightMm = 0.5),
      FIRST + "tolerance.heightMm",
      /Typed in (centimetres|inches)/,
    ],
    [
      "arc minutes for degrees",
      (_, t) => (t.tolerance!.twistDeg = 9),
      FIRST + "tolerance.twistDeg",
      /arc minutes.*0\.15°/,
    ],
    ["no datum", (_, t) => delete (t as Record<string, unknown>).datum, FIRST + "datum", /./],
    [
      "no tolerance across",
      (_, t) => delete t.tolerance!.acrossMm,
      FIRST + "tolerance.acrossMm",
      /./,
    ],
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
      (s: Draft) => ((firstOf(s).placement as Draft).twistDeg = 50),
      FIRST + "placement.twistDeg",
      "is too much; at most 45.",
    ],
    [(s: Draft) => (s.run = []), "run", "needs at least 1."],
    [
      (s: Draft) => (firstOf(s).datum = "roof"),
      FIRST + "datum",
      "must be one of centreline, rear-axle-normal, thrust.",
    ],
    [
      (s: Draft) => ((s.source as Draft).date = "last May"),
      "source.date",
      "must be a date such as 2026-11-03.",
    ],
    [
      (s: Draft) => ((firstOf(s).object as Draft).widthMm = "wide"),
      FIRST + "object.widthMm",
      "must be a number.",
    ],
    [
      (s: Draft) => (firstOf(s).upright = "vehicle-plane"),
      FIRST + "tolerance.pitchDeg",
      "is needed: the board is to stand square to the vehicle's plane.",
    ],
    [
      (s: Draft) => {
        const far = structuredClone(firstOf(s));
        const placement = { ...(far.placement as Draft), alongMm: 2.6 };
        (s.setups as Draft[]).push({
          id: "b",
          name: "by the door",
          targets: [{ ...far, id: "b", placement }],
        });
      },
      "setups.1.targets.0.placement.alongMm",
      "2.6 mm cannot be meant; it lies between 600 and 9000 mm. Typed in metres? That would be 2600 mm.",
    ],
  ] as [(s: Draft) => unknown, string, string][])(
    "is said in plain words (%#)",
    (change, field, message) => {
      const draft = structuredClone(SHEETS[0]!) as unknown as Draft;
      change(draft);
      expect(draftProblems(draft).map((p) => [p.field, p.message])).toContainEqual([
        field,
        message,
      ]);
    },
  );
});

it("what nobody has come to yet is told apart from what is wrong", () => {
  const draft = structuredClone(SHEETS[0]!) as unknown as Draft;
  delete draft.title;
  draft.reason = "";
  draft.run = [];
  const missing = draftProblems(draft).filter((p) => p.missing);
  expect(missing.map((p) => p.field)).toEqual(["title", "run"]);
});

describe("what changed between versions", () => {
  it("names each leaf by its path, both sides in words", () => {
    const next = structuredClone(SHEETS[0]!);
    next.version = 3;
    next.setups[0]!.targets[0]!.placement.alongMm = 2880;
    next.run[1]!.say = "Supply voltage, at the battery itself";
    next.prove = next.prove.slice(1);
    expect(differences(SHEETS[0], next)).toEqual([
      { path: "version", before: "2", after: "3" },
      {
        path: "setups.first.targets.first.placement.alongMm",
        before: "2860",
        after: "2880",
      },
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
    const [board] = added.setups[0]!.targets;
    const far = { ...board!, id: "far", placement: { ...board!.placement, alongMm: 3900 } };
    added.setups.push({ id: "far", name: "the far place", targets: [far] });
    const [only] = differences(SHEETS[0], added);
    expect(only).toMatchObject({ path: "setups.far", before: "–" });
    expect(only!.after).toContain("id far, name the far place, targets ");
    expect(only!.after).toContain("placement alongMm 3900, acrossMm 0, twistDeg 0, heightMm 1245");
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

describe("a sheet of the first format", () => {
  const old = {
    format: "iridel.sheet/1",
    id: "skua-forward",
    version: 4,
    title: "Skua, forward camera, static, near, far and beside",
    source: SHEETS[0]!.source,
    appliesTo: SHEETS[0]!.appliesTo,
    reason: SHEETS[0]!.reason,
    kind: "static",
    datum: "centreline",
    distanceFrom: "camera",
    board: { code: "HQ-14", widthMm: 1100 },
    placement: { alongMm: 2600, acrossMm: 0, twistDeg: 0, heightMm: 1245 },
    positions: [
      {
        id: "far",
        name: "the far place",
        placement: { alongMm: 3900, acrossMm: 0, twistDeg: 0, heightMm: 1245 },
      },
      {
        id: "left",
        name: "the left place",
        placement: { alongMm: 3900, acrossMm: 900, twistDeg: 0, heightMm: 1245 },
        board: { code: "HQ-17", widthMm: 1250 },
        beside: true,
      },
    ],
    tolerance: { alongMm: 15, acrossMm: 15, twistDeg: 0.5, heightMm: 8 },
    cautions: ["Chocks in.", "Keep out of the laser.", "Use the tether.", "Mind the door."],
    ready: [],
    run: [
      { id: "to-far", kind: "position", say: "Move the stand to the far place.", to: "far" },
      { id: "to-left", kind: "position", say: "Bring a second stand.", to: "left" },
      SHEETS[0]!.run.find((s) => s.kind === "routine")!,
    ],
    prove: [],
  };

  it("is read as one of today's: places become setups, what stood beside belongs to the one before", () => {
    const read = readSheet(old);
    expect(read.ok ? [] : read.problems).toEqual([]);
    const { setups, method, status, cautions } = (read as { sheet: Sheet }).sheet;
    expect([method, status]).toEqual(["static", "checked"]);
    expect(cautions.map((c) => c.when)).toEqual(["wheels", "laser", "lift", "start"]);
    const places = setups.map((s) =>
      s.targets.map((t) => [t.id, t.object.code, t.placement.acrossMm, t.tolerance.alongMm]),
    );
    expect(places).toEqual([
      [["first", "HQ-14", 0, 15]],
      [
        ["far", "HQ-14", 0, 15],
        ["left", "HQ-17", 900, 15],
      ],
    ]);
  });

  it("may be a draft that lacks anything, and still names what it lacks", () => {
    const { tolerance: _, board: __, ...rest } = old;
    const fields = draftProblems(rest as Draft).map((p) => p.field);
    expect(fields).toContain("setups.0.targets.0.tolerance");
    expect(fields).toContain("setups.0.targets.0.object");
    expect(fields).not.toContain("setups.1.targets.1.object");
    expect(draftProblems({ format: "iridel.sheet/1" }).length).toBeGreaterThan(3);
  });
});

describe("limits a source does not name", () => {
  const lisse = VEHICLES.find((v) => v.id === "norvane-lisse")!;
  const own = followOwnLimits(
    changed((_, t) => (t.ownLimit = { laneMm: 300, rangeMm: 6000 })),
    [lisse],
  );
  const first = (draft: Draft): Target => (draft.setups as Setup[])[0]!.targets[0]!;

  it("follow from the road, and a sheet that has them says so", () => {
    expect(draftProblems(own)).toEqual([]);
    const { tolerance, ownLimit } = first(own);
    expect(ownLimit!.seen).toEqual([{ cameraHeightMm: 1162, aheadMm: 3565, leftMm: 0 }]);
    expect(tolerance).not.toEqual(SHEETS[0]!.setups[0]!.targets[0]!.tolerance);
    expect(ownLimitWords(first(own))).toContain("at most 0.30 m");
    expect(ownLimitWords(SHEETS[0]!.setups[0]!.targets[0]!)).toBeNull();
  });

  it("are others where less is allowed, or the board stands nearer; and wait for a vehicle", () => {
    const less = structuredClone(own);
    first(less).ownLimit!.laneMm = 150;
    const near = structuredClone(own);
    first(near).placement.alongMm = 1500;
    const across = (d: Draft): number => first(followOwnLimits(d, [lisse])).tolerance.acrossMm!;
    expect(across(less)).toBeLessThan(first(own).tolerance.acrossMm!);
    expect(across(near)).toBeLessThan(first(own).tolerance.acrossMm!);
    expect(followOwnLimits(less, [])).toEqual(less);
  });

  it("are not typed: another figure is held back, and so is one that no hands can prove", () => {
    const typed = structuredClone(own);
    first(typed).tolerance.acrossMm = 25;
    expect(draftProblems(typed)).toEqual([
      {
        field: FIRST + "tolerance.acrossMm",
        message: expect.stringContaining("is not what the effect on the road leaves") as string,
      },
    ]);
    const tight = structuredClone(own);
    first(tight).ownLimit!.rangeMm = 600;
    expect(draftProblems(followOwnLimits(tight, [lisse]))).toContainEqual({
      field: FIRST + "tolerance.heightMm",
      message: expect.stringContaining("less than hands can prove") as string,
    });
  });
});

describe("a sheet of another system", () => {
  const of = (id: string, change: (s: Sheet) => void): string[] => {
    const copy = structuredClone(SHEETS.find((s) => s.id === id)!);
    change(copy);
    const read = readSheet(copy);
    return read.ok ? [] : read.problems;
  };
  const target = (s: Sheet): Target => s.setups[0]!.targets[0]!;

  it("is refused where what it sets out does not fit what it calibrates, the field named", () => {
    expect(of("hauler-mirrors", () => undefined)).toEqual([]);
    expect(
      of("hauler-mirrors", (s) => (s.run = s.run.filter((x) => x.id !== "aim-right"))),
    ).toEqual([expect.stringMatching(/^run: must aim the camera on vehicle right too/)]);
    expect(of("hauler-mirrors", (s) => (target(s).placement.acrossMm *= -1))).toEqual([
      expect.stringMatching(/acrossMm: does not lie on vehicle left/),
    ]);
    expect(of("fell-radar", (s) => delete target(s).object.is)).toEqual([
      expect.stringMatching(/object.is: must be a reflector/),
    ]);
    expect(of("fell-radar", (s) => (s.appliesTo.system = "forward-camera")).join()).toMatch(
      /is the routine of another system/,
    );
    expect(of("carrier-rear", (s) => (target(s).placement.alongMm = 4200))).toEqual([
      expect.stringMatching(/alongMm: must count behind the rear hub line/),
    ]);
    expect(of("motto-rear", (s) => (target(s).placement.alongMm = 2700))).toEqual([
      expect.stringMatching(/alongMm: is negative, at least 300 mm behind/),
    ]);
    expect(of("motto-rear", (s) => (target(s).distanceFrom = "front-badge"))).toEqual([
      expect.stringMatching(/distanceFrom: must be at the rear/),
    ]);
    expect(of("motto-sides", (s) => (target(s).placement.acrossMm *= -1))).toEqual([
      expect.stringMatching(/acrossMm: does not lie at least 300 mm to vehicle left/),
    ]);
    expect(of("lisse-forward", (s) => (target(s).placement.alongMm = -2700))).toEqual([
      expect.stringMatching(/alongMm: is at least 300 mm: the board stands ahead/),
    ]);
  });
});

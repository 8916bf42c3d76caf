import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { RULES } from "@/demo/data/rules";
import {
  happeningName,
  lineName,
  minutesWords,
  needConflicts,
  OrderCycleError,
  owedFor,
  planOwed,
  redoneBy,
  ruleBookSchema,
  type Fitted,
  type Happening,
  type Order,
  type OwedLine,
} from ".";
import type { EventId, PlaceId } from "./names";

const CAR: Fitted[] = [
  { system: "forward-camera", places: ["windshield"] },
  { system: "surround-view", places: ["front", "rear", "left", "right"] },
  { system: "front-radar", places: ["front"] },
  { system: "corner-radar", places: ["rear"] },
  { system: "rear-camera", places: ["rear"] },
  { system: "steering-angle", places: ["chassis"] },
];
const TRUCK: Fitted[] = [
  { system: "forward-camera", places: ["windshield"] },
  { system: "mirror-camera", places: ["left", "right"] },
  { system: "steering-angle", places: ["chassis"] },
];
const CAMPER: Fitted[] = [
  { system: "side-camera", places: ["left", "right"] },
  { system: "trailer-camera", places: ["trailer"] },
];
const BARE: Fitted[] = [{ system: "rear-camera", places: ["rear"] }];

const owed = (fitted: Fitted[], ...list: [EventId, PlaceId | null][]): string[] =>
  owedFor(
    list.map(([event, place]) => ({ event, place })),
    fitted,
    RULES.rules,
  )
    .map((l) => l.id)
    .sort();

/** Vehicle, what happened and where (`event@place`), what is owed. */
const TABLE: [name: string, Fitted[], happened: string, owed: string][] = [
  ["nothing happened", CAR, "", ""],
  ["glass out", CAR, "glass-out@windshield", "forward-camera/static"],
  ["camera off and on", CAR, "camera-touched@windshield", "forward-camera/static"],
  ["camera replaced", CAR, "camera-replaced@windshield", "forward-camera/static"],
  ["bracket touched", CAR, "bracket-touched@windshield", "forward-camera/static"],
  ["rear camera replaced", CAR, "camera-replaced@rear", "rear-camera/static surround-view/static"],
  ["side camera replaced", CAR, "camera-replaced@left", "surround-view/static"],
  ["left mirror off", CAR, "mirror-touched@left", "surround-view/static"],
  ["left door off on a camper", CAMPER, "door-touched@left", "side-camera/static"],
  ["grille off", CAR, "grille-touched@front", "front-radar/static surround-view/static"],
  ["front bumper off", CAR, "bumper-touched@front", "front-radar/static surround-view/static"],
  [
    "rear bumper off",
    CAR,
    "bumper-touched@rear",
    "corner-radar/static rear-camera/static surround-view/static",
  ],
  [
    "bumper off, nobody says which, sensors at both ends",
    CAR,
    "bumper-touched",
    "corner-radar/static front-radar/static rear-camera/static surround-view/static",
  ],
  [
    "a camera replaced, nobody says which",
    TRUCK,
    "camera-replaced",
    "forward-camera/static mirror-camera/static",
  ],
  ["a mirror off, nobody says which side", TRUCK, "mirror-touched", "mirror-camera/static"],
  ["code of the rear camera", BARE, "code-stored@rear", "rear-camera/static"],
  ["complaint about the rear picture", BARE, "complaint@rear", "rear-camera/static"],
  [
    "complaint about the gap to the car ahead",
    CAR,
    "complaint@front",
    "front-radar/dynamic front-radar/static surround-view/static",
  ],
  [
    "trailer unit programmed",
    CAMPER,
    "unit-programmed@trailer",
    "trailer-camera/dynamic trailer-camera/static",
  ],
  ["tailgate off", CAR, "tailgate-touched@rear", "rear-camera/static surround-view/static"],
  ["tailgate off on a truck", TRUCK, "tailgate-touched@rear", ""],
  [
    "camera unit replaced",
    CAR,
    "unit-replaced@windshield",
    "forward-camera/dynamic forward-camera/static",
  ],
  [
    "radar unit replaced",
    CAR,
    "unit-replaced@front",
    "front-radar/dynamic front-radar/static surround-view/static",
  ],
  ["chassis unit programmed", CAR, "unit-programmed@chassis", "steering-angle/learn"],
  [
    "wheels aligned",
    CAR,
    "alignment@chassis",
    "forward-camera/static front-radar/static steering-angle/learn",
  ],
  [
    "suspension",
    CAR,
    "suspension@chassis",
    "forward-camera/static front-radar/static steering-angle/learn surround-view/static",
  ],
  ["steering", CAR, "steering@chassis", "forward-camera/dynamic steering-angle/learn"],
  [
    "ride height",
    CAR,
    "ride-height@chassis",
    "forward-camera/static front-radar/static surround-view/static",
  ],
  ["tyre size", CAR, "tyre-size@chassis", "forward-camera/static"],
  [
    "collision in front",
    CAR,
    "collision-near@front",
    "forward-camera/dynamic forward-camera/static front-radar/static surround-view/static",
  ],
  [
    "collision behind",
    CAR,
    "collision-near@rear",
    "corner-radar/static rear-camera/static surround-view/static",
  ],
  [
    "airbag",
    CAR,
    "airbag",
    "forward-camera/dynamic forward-camera/static front-radar/static steering-angle/learn",
  ],
  ["code of the forward camera", CAR, "code-stored@windshield", "forward-camera/static"],
  [
    "code of the radar",
    CAR,
    "code-stored@front",
    "front-radar/dynamic front-radar/static surround-view/static",
  ],
  [
    "complaint about the lane warning",
    CAR,
    "complaint@windshield",
    "forward-camera/dynamic forward-camera/static",
  ],
  [
    "complaint about the trailer picture",
    CAMPER,
    "complaint@trailer",
    "trailer-camera/dynamic trailer-camera/static",
  ],
  ["bulletin", CAR, "bulletin@windshield", "forward-camera/dynamic"],
  [
    "glass and wheels at once",
    CAR,
    "glass-out@windshield alignment@chassis",
    "forward-camera/static front-radar/static steering-angle/learn",
  ],
  [
    "everything in front",
    CAR,
    "glass-out@windshield bumper-touched@front unit-programmed@windshield",
    "forward-camera/dynamic forward-camera/static front-radar/static surround-view/static",
  ],
];

describe("what is owed", () => {
  it.each(TABLE)("%s", (_, fitted, happened, expected) => {
    const list = happened.split(" ").flatMap((h): [EventId, PlaceId | null][] => {
      const [event, place] = h.split("@");
      return event ? [[event as EventId, (place as PlaceId | undefined) ?? null]] : [];
    });
    expect(owed(fitted, ...list).join(" ")).toBe(expected);
  });
  it("is still owed after a clean scan: nothing that happens ever takes a line away", () => {
    // The scan was clean, so no code is among the happenings; the glass alone decides.
    expect(owed(CAR, ["glass-out", "windshield"])).toEqual(["forward-camera/static"]);
    const happening = fc.record({
      event: fc.constantFrom(...(Object.keys(EVENTS_USED) as EventId[])),
      place: fc.constantFrom<PlaceId | null>(
        "windshield",
        "front",
        "rear",
        "left",
        "right",
        "chassis",
        null,
      ),
    });
    fc.assert(
      fc.property(fc.array(happening, { maxLength: 5 }), happening, (list, one) => {
        const before = owedFor(list, CAR, RULES.rules).map((l) => l.id);
        const after = owedFor([...list, one], CAR, RULES.rules).map((l) => l.id);
        expect(after).toEqual(expect.arrayContaining(before));
      }),
    );
  });
  it("goes on to the road where the vehicle's own sheet does, and only there", () => {
    const glass: Happening[] = [
      { event: "glass-out", place: "windshield" },
      { event: "bumper-touched", place: "front" },
    ];
    const ids = (kind: "static" | "static-then-dynamic") =>
      owedFor(glass, CAR, RULES.rules, [{ system: "forward-camera", kind }])
        .map((l) => l.id)
        .sort();
    expect(ids("static-then-dynamic")).toEqual([
      "forward-camera/dynamic",
      "forward-camera/static",
      "front-radar/static",
      "surround-view/static",
    ]);
    expect(ids("static")).toEqual([
      "forward-camera/static",
      "front-radar/static",
      "surround-view/static",
    ]);
  });
  it("keeps every reason of a line, each with its rule and source", () => {
    const [line] = owedFor(
      [
        { event: "glass-out", place: "windshield" },
        { event: "camera-replaced", place: "windshield" },
      ],
      TRUCK,
      RULES.rules,
    );
    expect(line!.because.map((b) => b.rule.id)).toEqual(["glass-forward", "camera-forward"]);
    expect(
      line!.because.every((b) => b.rule.reason.length > 20 && b.rule.source.includes("page")),
    ).toBe(true);
  });
  it("says what has to be done again when something is touched later", () => {
    const lines = owedFor(
      [
        { event: "glass-out", place: "windshield" },
        { event: "bumper-touched", place: "rear" },
      ],
      CAR,
      RULES.rules,
    );
    const again = (h: Happening) => redoneBy(h, lines, CAR, RULES.rules).sort();
    expect(again({ event: "alignment", place: "chassis" })).toEqual(["forward-camera/static"]);
    expect(again({ event: "mirror-touched", place: "left" })).toEqual(["surround-view/static"]);
    expect(again({ event: "grille-touched", place: "rear" })).toEqual([]);
  });
});

const EVENTS_USED = Object.fromEntries(RULES.rules.flatMap((r) => r.when.map((e) => [e, true])));

const line = (system: OwedLine["system"], kind: OwedLine["kind"]): OwedLine => ({
  id: `${system}/${kind}`,
  system,
  kind,
  places: ["front"],
  because: [],
});
const ALL_LINES = (
  ["forward-camera", "surround-view", "front-radar", "steering-angle"] as const
).flatMap((s) => (["static", "dynamic", "learn"] as const).map((k) => line(s, k)));

/** Every order of a few lines, for checking by brute force. */
const permutations = <T>(list: T[]): T[][] =>
  list.length <= 1
    ? [list]
    : list.flatMap((x, i) =>
        permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((p) => [x, ...p]),
      );

const obeys = (order: OwedLine[], orders: Order[]): boolean =>
  orders.every((o) =>
    order.every((b, j) =>
      order.every((a, i) => {
        const fits = (l: OwedLine, s: Order["first"]): boolean =>
          (!s.system || s.system === l.system) && (!s.kind || s.kind === l.kind);
        return (
          i === j ||
          !fits(a, o.first) ||
          !fits(b, o.then) ||
          (o.sameSystem && a.system !== b.system) ||
          i < j
        );
      }),
    ),
  );

describe("the plan", () => {
  const subject = fc.record(
    {
      system: fc.option(fc.constantFrom("forward-camera", "surround-view", "front-radar"), {
        nil: undefined,
      }),
      kind: fc.option(fc.constantFrom("static", "dynamic", "learn"), { nil: undefined }),
    },
    { requiredKeys: [] },
  );
  const someOrders = fc.array(
    fc.record({ first: subject, then: subject, sameSystem: fc.boolean() }),
    { maxLength: 4 },
  );

  it("is an order that brute force allows, and is refused exactly where brute force finds none", () => {
    let [planned, refused] = [0, 0];
    fc.assert(
      fc.property(
        fc.subarray(ALL_LINES, { minLength: 1, maxLength: 5 }),
        someOrders,
        (lines, raw) => {
          const orders = raw.map((o, i) => ({ ...o, id: `o${i}`, why: "because" })) as Order[];
          const possible = permutations(lines).some((p) => obeys(p, orders));
          try {
            const { steps } = planOwed(lines, { orders, efforts: RULES.efforts });
            planned++;
            expect(
              obeys(
                steps.map((s) => s.line),
                orders,
              ),
            ).toBe(true);
            expect(steps).toHaveLength(lines.length);
          } catch (error) {
            expect(error).toBeInstanceOf(OrderCycleError);
            expect(possible).toBe(false);
            refused++;
            return;
          }
          expect(possible).toBe(true);
        },
      ),
      { numRuns: 600, seed: 4 },
    );
    expect(planned).toBeGreaterThan(100);
    expect(refused).toBeGreaterThan(30);
  });

  it("names the orders that go round in a circle, and no others", () => {
    const orders: Order[] = [
      {
        id: "a-b",
        first: { system: "forward-camera" },
        then: { system: "front-radar" },
        sameSystem: false,
        why: "x y z",
      },
      {
        id: "b-c",
        first: { system: "front-radar" },
        then: { system: "surround-view" },
        sameSystem: false,
        why: "x y z",
      },
      {
        id: "c-a",
        first: { system: "surround-view" },
        then: { system: "forward-camera" },
        sameSystem: false,
        why: "x y z",
      },
      {
        id: "innocent",
        first: { system: "steering-angle" },
        then: { system: "forward-camera" },
        sameSystem: false,
        why: "x y z",
      },
    ];
    const lines = [
      line("forward-camera", "static"),
      line("front-radar", "static"),
      line("surround-view", "static"),
      line("steering-angle", "learn"),
    ];
    expect(() => planOwed(lines, { orders, efforts: [] })).toThrow(OrderCycleError);
    try {
      planOwed(lines, { orders, efforts: [] });
    } catch (error) {
      expect((error as OrderCycleError).orders.sort()).toEqual(["a-b", "b-c", "c-a"]);
      expect((error as Error).message).toContain("Take one of them out of the rule book");
    }
  });

  it("places what shares a set-up together, counts it once, and adds up road time, boards and room", () => {
    const lines = owedFor(
      [
        { event: "alignment", place: "chassis" },
        { event: "steering", place: "chassis" },
        { event: "mirror-touched", place: "left" },
      ],
      CAR,
      RULES.rules,
    );
    const plan = planOwed(lines, RULES);
    const ids = plan.steps.map((s) => s.line.id);
    expect(ids[0]).toBe("steering-angle/learn");
    expect(Math.abs(ids.indexOf("forward-camera/static") - ids.indexOf("front-radar/static"))).toBe(
      1,
    );
    expect(ids.at(-1)).toBe("forward-camera/dynamic");
    expect(plan.steps.find((s) => s.line.id === "front-radar/static")!.shares).toEqual([
      "forward-camera/static",
    ]);
    // 10 learn + (55 + 35 / 5) front stand + 2 for the reflector to go + 50 mats + 10 before the road.
    expect(plan.bayMinutes).toBe(134);
    expect(plan.clearMinutes).toBe(2);
    expect(plan.steps.find((s) => s.line.id === "forward-camera/static")!.clears).toEqual([
      "front-radar/static",
    ]);
    // 30 for the stand and a fifth of 15, and 32 for the mats, which stay for the rest.
    expect(plan.setUpMinutes).toBe(65);
    expect(plan.turnMinutes).toBe(0);
    expect(plan.roadMinutes).toBe(25);
    expect(plan.roomM).toEqual({ ahead: 6, behind: 3, sides: 2.5 });
    expect(plan.boards).toContain("HQ-M3");
    expect(plan.steps.at(-1)!.after.map((a) => a.id)).toContain("front-radar/static");
  });

  it("points out what one needs and another forbids, with the change between them in the plan's own order", () => {
    const lines = owedFor(
      [
        { event: "alignment", place: "chassis" },
        { event: "steering", place: "chassis" },
      ],
      CAR,
      RULES.rules,
    );
    const plan = planOwed(lines, RULES);
    const found = needConflicts(plan);
    const order = plan.steps.map((s) => s.line.id);
    for (const c of found) {
      expect(c.firstWants).not.toBe(c.thenWants);
      expect(order.indexOf(c.first)).toBeLessThan(order.indexOf(c.then));
    }
    const bonnet = found.filter((c) => c.need === "bonnet");
    // The radar leads, since its reflector is sooner cleared away than a board: open, then shut.
    expect(bonnet.map((c) => c.thenWants)).toContain("shut");
    expect(found.find((c) => c.need === "lights")!.words).toContain("needs the lights off");
    expect(needConflicts(planOwed(lines.slice(0, 1), RULES))).toEqual([]);
  });

  it("takes as few minutes of the bay as any order that is allowed: brute force, up to six lines", () => {
    // Worked out apart: the bay is taken up anew whenever the set-up changes or the car is turned, and
    // what stands where a line needs the floor is carried off.
    const minutesOf = (order: readonly OwedLine[], efforts: typeof RULES.efforts): number => {
      const of = (l: OwedLine) => efforts.find((e) => e.system === l.system && e.kind === l.kind);
      let [total, longest, standing]: [number, number, string | null] = [0, 0, null];
      let way: string | undefined;
      const floor = new Map<string, { at: readonly string[]; minutes: number }>();
      for (const l of order) {
        const e = of(l)!;
        const { bayMinutes, setUp } = e;
        if (e.nose && way && way !== e.nose) {
          total += 11;
          floor.clear();
          standing = null;
        }
        way = e.nose ?? way;
        for (const [id, { at, minutes }] of floor)
          if (at.some((side) => e.clear?.some((c) => c === side))) {
            total += minutes;
            floor.delete(id);
          }
        if (e.stands?.length) floor.set(l.id, { at: e.stands, minutes: e.clearMinutes! });
        if (setUp !== null && setUp === standing) {
          const [more, less] = [Math.max(longest, bayMinutes), Math.min(longest, bayMinutes)];
          total += more - longest + less / 5;
          longest = more;
        } else {
          total += bayMinutes;
          longest = bayMinutes;
        }
        standing = setUp;
      }
      return total;
    };
    let [shared, cleared, turned] = [0, 0, 0];
    fc.assert(
      fc.property(
        fc.subarray(ALL_LINES, { minLength: 2, maxLength: 6 }),
        someOrders,
        fc.array(
          fc.record({
            bayMinutes: fc.integer({ min: 5, max: 90 }),
            setUp: fc.constantFrom("front", "mats", null),
            stands: fc.subarray(["ahead", "behind", "left"] as const),
            clear: fc.subarray(["ahead", "behind", "left"] as const),
            clearMinutes: fc.integer({ min: 0, max: 15 }),
            nose: fc.constantFrom("in", "out", undefined),
          }),
          { minLength: ALL_LINES.length, maxLength: ALL_LINES.length },
        ),
        (lines, raw, takes) => {
          const orders = raw.map((o, i) => ({ ...o, id: `o${i}`, why: "because" })) as Order[];
          const allowed = permutations(lines).filter((p) => obeys(p, orders));
          if (allowed.length === 0) return;
          const efforts = ALL_LINES.map((l, i) => ({
            ...RULES.efforts[0]!,
            system: l.system,
            kind: l.kind,
            ...takes[i]!,
          })) as typeof RULES.efforts;
          const plan = planOwed(lines, { orders, efforts, turnMinutes: 11 });
          if (plan.steps.some((x) => x.clears.length > 0)) cleared++;
          if (plan.turnMinutes > 0) turned++;
          const least = Math.min(...allowed.map((p) => minutesOf(p, efforts)));
          expect(
            minutesOf(
              plan.steps.map((x) => x.line),
              efforts,
            ),
          ).toBeCloseTo(least, 9);
          expect(plan.bayMinutes).toBe(Math.round(least));
          if (plan.steps.some((x) => x.shares.length > 0)) shared++;
        },
      ),
      { numRuns: 300 },
    );
    for (const met of [shared, cleared, turned]) expect(met).toBeGreaterThan(30);
  });

  it("says which efforts the shop has not entered instead of inventing them", () => {
    const plan = planOwed(
      [line("forward-camera", "static"), line("rear-camera", "dynamic")],
      RULES,
    );
    expect(plan.unknown).toEqual(["rear-camera/dynamic"]);
  });
});

describe("the rule book", () => {
  it("is valid, covers every event, and refuses a doubled id", () => {
    expect(ruleBookSchema.safeParse(RULES).success).toBe(true);
    expect(Object.keys(EVENTS_USED)).toHaveLength(21);
    const doubled = ruleBookSchema.safeParse({ ...RULES, rules: [RULES.rules[0], RULES.rules[0]] });
    expect(doubled.success).toBe(false);
    expect(JSON.stringify(doubled.error!.issues)).toContain("is used twice");
  });
  it("speaks in words a customer can read", () => {
    expect(lineName({ system: "front-radar", kind: "static" })).toBe("Front radar, static");
    expect(happeningName({ event: "bumper-touched", place: "rear" })).toBe(
      "Bumper taken off or replaced (rear)",
    );
    expect([7, 60, 132].map(minutesWords)).toEqual(["7 min", "1 h", "2 h 12 min"]);
  });
});

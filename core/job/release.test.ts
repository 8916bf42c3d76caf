import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import { intakeSchema, releaseOf, releaseProblem, type EventBody, type ReleaseRule } from ".";

const plain = groundOf(intakeSchema.parse(INTAKE), 0, SHEETS[0]!);
const withRule = (release: ReleaseRule) => ({ ...plain, release });
const BOTH = withRule({ by: "lead", second: true });
const INES = { id: "ines", role: "technician" };
const MARA = { id: "mara", role: "lead" };
const hold: EventBody = { kind: "hold", reason: "picture still steps at the right", stage: "run" };
const lift: EventBody = { kind: "hold-lifted", reason: "mat laid anew" };
const sign: EventBody = { kind: "sign-off" };
const work: EventBody = { kind: "touch", touch: "knocked" };
const problem = (g: typeof BOTH, who: typeof INES, ...bodies: EventBody[]) =>
  releaseProblem(releaseOf(g, logOf(plain, ...bodies)), who)?.say ?? null;

describe("a release", () => {
  it("is anybody's where the shop says nothing, until somebody holds the vehicle back", () => {
    expect(releaseProblem(releaseOf(plain, logOf(plain)), INES)).toBeNull();
    expect(problem(withRule({ by: "writer", second: false }), INES, hold)).toMatch(
      /^Held back: picture still steps at the right\.$/,
    );
    expect(problem(withRule({ by: "writer", second: false }), INES, hold, lift)).toBeNull();
    expect(problem(withRule({ by: "writer", second: false }), INES, hold, lift, hold)).toMatch(
      /Held/,
    );
  });

  it("is the lead's where the shop says so, after somebody else signed what is still so", () => {
    expect(problem(BOTH, INES, sign)).toMatch(/the lead gives vehicles back/);
    expect(problem(BOTH, MARA)).toMatch(/a second person signs first/);
    expect(problem(BOTH, MARA, sign)).toBeNull();
    // Ines signed: as a lead she would still be only one person.
    expect(problem(BOTH, { id: "ines", role: "lead" }, sign)).toMatch(/Ines Tarbet signed it/);
    expect(problem(BOTH, MARA, sign, work)).toMatch(/a second person signs first/);
    expect(problem(BOTH, MARA, sign, hold, lift)).toBeNull();
  });

  it("never comes about while it is held, or by one who signed, whatever happened before", () => {
    const any = fc.array(fc.constantFrom(hold, lift, sign, work), { maxLength: 12 });
    fc.assert(
      fc.property(any, fc.constantFrom(INES, MARA), (bodies, who) => {
        const log = logOf(plain, ...bodies);
        const state = releaseOf(BOTH, log);
        const last = (kinds: string[]): string | undefined =>
          bodies.findLast((b) => kinds.includes(b.kind))?.kind;
        if (last(["hold", "hold-lifted"]) === "hold") expect(state.held).not.toBeNull();
        else expect(state.held).toBeNull();
        const free = releaseProblem(state, who) === null;
        if (!free) return;
        expect(who).toBe(MARA);
        expect(last(["sign-off", "touch"])).toBe("sign-off");
      }),
    );
  });
});

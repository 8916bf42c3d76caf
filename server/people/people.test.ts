import { beforeAll, describe, expect, it } from "vitest";
import { eq } from "drizzle-orm";
import { INES, openTestShop } from "@/tests/shop-database";
import { onEnded } from "../auth/bell";
import { checkPin } from "../auth/pin";
import { db } from "../db/client";
import { people, sessions } from "../db/schema";
import { listPeople } from "../shop/store";
import {
  addPerson,
  changeOwnPin,
  changePerson,
  everybody,
  givePin,
  openShop,
  pinProblem,
} from "./store";

beforeAll(() => openTestShop());

it("of two who open a new shop at once only one becomes its lead", async () => {
  const kept = db().select().from(people).all();
  db().delete(people).run();
  const tries = await Promise.allSettled([
    openShop(LEA, "270419"),
    openShop({ ...LEA, initials: "LW" }, "270419"),
  ]);
  expect(tries.map((t) => t.status).sort()).toEqual(["fulfilled", "rejected"]);
  db().delete(people).run();
  db().insert(people).values(kept).run();
});

const TAM = { name: "Tam Orrin", initials: "to", role: "technician" };
const LEA = { name: "Lea Voss", initials: "LV", role: "lead" };
const sessionOf = (personId: string) =>
  db()
    .insert(sessions)
    .values({
      tokenHash: `t-${personId}`,
      personId,
      createdAt: "2026-01-01T00:00:00.000Z",
      expiresAt: "2999-01-01T00:00:00.000Z",
    })
    .run();
const sessionsOf = (personId: string): number =>
  db().select().from(sessions).where(eq(sessions.personId, personId)).all().length;

describe("people", () => {
  it.each([
    ["12345", /six to twelve/],
    ["1234567890123", /six to twelve/],
    ["12345a", /six to twelve/],
    ["000000", /again and again/],
    ["345678", /in a row/],
    ["876543", /in a row/],
  ])("a PIN like %s will not do", (pin, words) => expect(pinProblem(pin)).toMatch(words));
  it("are entered once, by name, with initials nobody else prints, and sign in with their PIN", async () => {
    const tam = await addPerson(TAM, "481527");
    expect(everybody().find((p) => p.id === tam)).toMatchObject({
      initials: "TO",
      retiredAt: null,
    });
    expect(await checkPin(tam, "481527")).toEqual({ ok: true, personId: tam });
    await expect(addPerson({ ...TAM, name: "Tove Ost" }, "481527")).rejects.toThrow(
      "Initials: TO is Tam Orrin already",
    );
    await expect(addPerson({ ...TAM, name: "T" }, "481527")).rejects.toThrow("Name: is too short");
    await expect(addPerson({ ...TAM, initials: "T1" }, "481527")).rejects.toThrow(
      "Initials: are two or three letters",
    );
    await expect(addPerson({ ...TAM, initials: "TX", role: "owner" }, "481527")).rejects.toThrow(
      "Role: must be one of",
    );
    await expect(openShop(LEA, "270419")).rejects.toThrow(/has people already/);
  });
  it("who left can neither sign in nor go on, keeps the lines they wrote, and may come back", async () => {
    const lea = await addPerson(LEA, "270419");
    const tam = everybody().find((p) => p.initials === "TO")!.id;
    sessionOf(tam);
    changePerson(tam, TAM, true, INES);
    expect(sessionsOf(tam)).toBe(0);
    expect(await checkPin(tam, "481527")).toMatchObject({ ok: false });
    expect(listPeople().map((p) => p.id)).not.toContain(tam);
    expect(everybody().at(-1)).toMatchObject({ id: tam, retiredAt: expect.any(String) as string });
    // The initials are free now; whoever comes back has to take others.
    await addPerson({ ...TAM, name: "Tove Ost" }, "530917");
    expect(() => changePerson(tam, TAM, false, INES)).toThrow(/TO is Tove Ost already/);
    changePerson(tam, { ...TAM, initials: "TOR" }, false, INES);
    expect(listPeople().map((p) => p.id)).toContain(tam);
    // Another role is another person at the door: sessions end, and so do open streams.
    sessionOf(tam);
    let heard = 0;
    const stop = onEnded(tam, () => heard++);
    changePerson(tam, { ...TAM, initials: "TOR", role: "viewer" }, false, INES);
    expect([sessionsOf(tam), heard]).toEqual([0, 1]);
    stop();
    expect(() => changePerson(lea, { ...LEA, role: "technician" }, false, INES)).toThrow(
      /needs a lead/,
    );
    expect(() => changePerson(lea, LEA, true, INES)).toThrow(/needs a lead/);
  });
  it("a new PIN from the lead ends the old sign-ins; one's own is changed with the old in hand", async () => {
    const lea = everybody().find((p) => p.initials === "LV")!.id;
    sessionOf(lea);
    await expect(givePin(lea, "111111", INES)).rejects.toThrow(/again and again/);
    await givePin(lea, "905512", INES);
    expect(sessionsOf(lea)).toBe(0);
    await expect(changeOwnPin({ id: lea, ...LEA }, "270419", "662031")).rejects.toThrow(
      /Old PIN: That PIN is not right/,
    );
    // Every other tablet must ask again; the one in hand need not.
    sessionOf(lea);
    await changeOwnPin({ id: lea, ...LEA }, "905512", "662031", {
      device: null,
      token: "kept-token",
    });
    expect(sessionsOf(lea)).toBe(0);
    expect(await checkPin(lea, "662031")).toMatchObject({ ok: true });
    expect(db().select().from(people).where(eq(people.id, lea)).get()!.pinHash).toMatch(
      /^\$argon2id/,
    );
  });
});

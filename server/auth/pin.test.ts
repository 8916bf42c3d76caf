import { beforeAll, describe, expect, it } from "vitest";
import { INES, openTestShop } from "@/tests/shop-database";
import { givePin } from "../people/store";
import { checkPin, hashPin } from "./pin";

beforeAll(async () => openTestShop(await hashPin("481526")));
const at = (s: number): Date => new Date(Date.UTC(2026, 10, 3, 9, 0, s));

describe("signing in", () => {
  it("takes the right PIN and no other person", async () => {
    expect(await checkPin("ines", "481526")).toEqual({ ok: true, personId: "ines" });
    const nobody = await checkPin("nobody", "481526");
    expect(nobody.ok ? "" : nobody.message).toMatch(/Choose your name/);
  });
  it("a tablet one has signed in on waits after three wrong tries, twice as long each time, even for the right PIN", async () => {
    expect((await checkPin("oskar", "481526", "his tablet", at(0))).ok).toBe(true);
    const words: string[] = [];
    for (const s of [1, 2, 3, 10, 30]) {
      const answer = await checkPin("oskar", "000000", "his tablet", at(s));
      if (!answer.ok) words.push(answer.message);
    }
    expect(words).toEqual([
      "That PIN is not right.",
      "That PIN is not right.",
      "That PIN is not right. Wait 5 s before the next try.",
      "That PIN is not right. Wait 10 s before the next try.",
      "That PIN is not right. Wait 20 s before the next try.",
    ]);
    expect(await checkPin("oskar", "481526", "his tablet", at(49))).toEqual({
      ok: false,
      message: "Too many wrong PINs. Try again in 1 s.",
    });
    expect(await checkPin("oskar", "481526", "his tablet", at(51))).toMatchObject({ ok: true });
    expect(await checkPin("oskar", "000000", "his tablet", at(52))).toMatchObject({
      message: "That PIN is not right.",
    });
  });
  it("strange tablets share thirty wrong PINs a day: they guess no longer, and keep nobody out of their own tablet", async () => {
    expect((await checkPin("ines", "481526", "her tablet", at(0))).ok).toBe(true);
    const tries = await Promise.all(
      Array.from({ length: 40 }, (_, i) => checkPin("ines", "111111", `strange ${i}`, at(1))),
    );
    expect(
      tries.filter((t) => !t.ok && t.message.startsWith("Too many wrong PINs today")),
    ).toHaveLength(10);
    const stranger = await checkPin("ines", "481526", "strange", at(2));
    expect(stranger.ok).toBe(false);
    expect((await checkPin("ines", "481526", "her tablet", at(2))).ok).toBe(true);
    // The next day, or with a new PIN, a strange tablet may try again.
    expect(
      (await checkPin("ines", "481526", "strange", new Date(at(0).getTime() + 86_400_000))).ok,
    ).toBe(true);
    await givePin("ines", "905512", { ...INES, id: "oskar" });
    expect((await checkPin("ines", "905512", "another strange", at(3))).ok).toBe(true);
  }, 60_000);
  it("many tries at once do not share one: the count is taken before the check", async () => {
    await checkPin("oskar", "481526", "a third tablet", at(60));
    const tries = await Promise.all(
      Array.from({ length: 8 }, () => checkPin("oskar", "111111", "a third tablet", at(61))),
    );
    expect(tries.filter((t) => !t.ok && /Too many/.test(t.message))).toHaveLength(5);
  });
});

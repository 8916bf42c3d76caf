import { beforeAll, describe, expect, it } from "vitest";
import { openTestShop } from "@/tests/shop-database";
import { checkPin, hashPin } from "./pin";

beforeAll(async () => openTestShop(await hashPin("481526")));

describe("signing in", () => {
  it("takes the right PIN and no other person", async () => {
    expect(await checkPin("ines", "481526")).toEqual({ ok: true, personId: "ines" });
    expect(await checkPin("nobody", "481526")).toMatchObject({ ok: false, message: /Choose your name/ });
  });
  it("waits after three wrong tries, twice as long each time, and refuses even the right PIN meanwhile", async () => {
    const at = (s: number): Date => new Date(Date.UTC(2026, 10, 3, 9, 0, s));
    const words: string[] = [];
    for (const s of [0, 1, 2, 10, 30]) {
      const answer = await checkPin("oskar", "000000", at(s));
      if (!answer.ok) words.push(answer.message);
    }
    expect(words).toEqual([
      "That PIN is not right.",
      "That PIN is not right.",
      "That PIN is not right. Wait 5 s before the next try.",
      "That PIN is not right. Wait 10 s before the next try.",
      "That PIN is not right. Wait 20 s before the next try.",
    ]);
    expect(await checkPin("oskar", "481526", at(49))).toMatchObject({ ok: false, message: /again in 1 s/ });
    expect(await checkPin("oskar", "481526", at(51))).toMatchObject({ ok: true });
    expect(await checkPin("oskar", "000000", at(52))).toMatchObject({ message: "That PIN is not right." });
  });
  it("many tries at once do not share one: the count is taken before the check", async () => {
    const tries = await Promise.all(Array.from({ length: 8 }, () => checkPin("ines", "111111")));
    expect(tries.filter((t) => !t.ok && /Too many/.test(t.message))).toHaveLength(5);
  });
});

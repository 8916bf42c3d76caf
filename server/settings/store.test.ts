import { beforeAll, describe, expect, it } from "vitest";
import { RULES } from "@/demo/data/rules";
import { INES, openTestShop } from "@/tests/shop-database";
import { db } from "../db/client";
import { ruleBooks } from "../db/schema";
import { glassPolicy, ruleBook } from "../shop/store";
import { importRuleBook, setGlassPolicy, setRuleBook } from "./store";

beforeAll(() => openTestShop());

describe("what the shop is bound by", () => {
  it("takes one of the two ways with glass, and nothing else", () => {
    setGlassPolicy("maker-only", INES);
    expect(glassPolicy()).toBe("maker-only");
    expect(() => setGlassPolicy("anything goes", INES)).toThrow(/one of the two ways/);
    expect(glassPolicy()).toBe("maker-only");
  });
  it("takes a rule book out to a file and back without loss", () => {
    const file = JSON.stringify(ruleBook());
    setRuleBook({ ...RULES, rules: RULES.rules.slice(1) }, INES);
    expect(ruleBook().rules).toHaveLength(RULES.rules.length - 1);
    importRuleBook(`\ufeff${file}`, INES);
    expect(
      db()
        .select({ v: ruleBooks.version })
        .from(ruleBooks)
        .all()
        .map((r) => r.v),
    ).toEqual([1, 2, 3]);
    expect(ruleBook()).toEqual(RULES);
  });
  const [first, ...rest] = RULES.rules;
  const circle = [
    ...RULES.orders,
    {
      id: "road-first",
      first: { kind: "dynamic" },
      then: { kind: "learn" },
      sameSystem: false,
      why: "Somebody thought so.",
    },
  ];
  it.each([
    ["no JSON", "{", /not JSON/],
    ["nothing at all", "null", /^rule book: must be an object/],
    ["a book without rules", JSON.stringify({ ...RULES, rules: [] }), /^rules: the file has none/],
    [
      "a rule without a reason",
      JSON.stringify({ ...RULES, rules: [{ ...first, reason: "" }, ...rest] }),
      /^rule "glass-forward", reason: /,
    ],
    [
      "an unknown event",
      JSON.stringify({ ...RULES, rules: [{ ...first, when: ["full-moon"] }, ...rest] }),
      /^rule "glass-forward", when\.0/,
    ],
    [
      "one name twice",
      JSON.stringify({ ...RULES, rules: [first, first] }),
      /^rule "glass-forward", id: is used twice/,
    ],
    [
      "an order that can never apply",
      JSON.stringify({
        ...RULES,
        orders: [
          {
            id: "idle",
            first: { kind: "alignment" },
            then: { kind: "static" },
            sameSystem: false,
            why: "Somebody thought so.",
          },
        ],
      }),
      /^order "idle": can never apply/,
    ],
    [
      "orders in a circle",
      JSON.stringify({ ...RULES, orders: circle }),
      /"road-first".* go round in a circle/,
    ],
  ])("refuses %s by name, and keeps the old book", (_, text, words) => {
    expect(() => importRuleBook(text, INES)).toThrow(words);
    expect(ruleBook()).toEqual(RULES);
  });
});

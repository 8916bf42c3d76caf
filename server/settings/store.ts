import { max } from "drizzle-orm";
import { KEEPS } from "@/core/drive/policy";
import { drivePolicySchema } from "@/core/drive/policy-schema";
import { ruleBookProblems, type RuleBook } from "@/core/owed";
import type { GlassPolicy } from "@/core/ready";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { ruleBooks, settings } from "../db/schema";
import { noteShop } from "../log/shop";
import { LETTERHEAD_KEY, letterheadSchema } from "../shop/letterhead";
import { DRIVES_KEY, RELEASE_KEY, releaseSchema } from "../shop/store";
import { CLOCK_KEY, clockSchema } from "../shop/clock";
import { plainFile } from "../book/file-text";

/** The setting cannot be as it was asked. The message names the field and the remedy. */
export class SettingsRefusal extends Refusal {
  override readonly name = "SettingsRefusal";
}

const keep = (key: string, value: unknown): void =>
  void db()
    .insert(settings)
    .values({ key, value })
    .onConflictDoUpdate({ target: settings.key, set: { value } })
    .run();

/** Which glass the shop accepts, for jobs opened from now on. @throws SettingsRefusal */
export function setGlassPolicy(policy: string, person: Person): void {
  const known: GlassPolicy[] = ["maker-only", "equivalent-with-reason"];
  if (!known.includes(policy as GlassPolicy))
    throw new SettingsRefusal("Choose one of the two ways.");
  db().transaction(() => {
    keep("glass.policy", policy);
    noteShop(person, { kind: "policy", name: "glass", value: policy });
  });
}

/** Who gives vehicles back, for jobs opened from now on. @throws SettingsRefusal */
export function setReleaseRule(json: unknown, person: Person): void {
  const read = releaseSchema.safeParse(json);
  if (!read.success) throw new SettingsRefusal("Release: choose who gives vehicles back.");
  const { by, second } = read.data;
  db().transaction(() => {
    keep(RELEASE_KEY, read.data);
    noteShop(person, {
      kind: "policy",
      name: "release",
      value: `${by === "lead" ? "the lead" : "whoever works"}${second ? ", a second person signs" : ""}`,
    });
  });
}

/** The shop's school of driving, for jobs opened from now on. @throws SettingsRefusal */
export function setDrivePolicy(json: unknown, person: Person): void {
  const read = drivePolicySchema.safeParse(json);
  if (!read.success) throw new SettingsRefusal(read.error.issues[0]!.message);
  const { keeps, rain } = read.data;
  db().transaction(() => {
    keep(DRIVES_KEY, read.data);
    noteShop(person, {
      kind: "policy",
      name: "drives",
      value: `${keeps.map((k) => KEEPS[k].toLowerCase()).join(", ")}; rain ${rain === "refused" ? "refused" : "with a reason"}`,
    });
  });
}

/** Where the shop's clock hangs and what its week begins with. @throws SettingsRefusal */
export function setShopClock(json: unknown, person: Person): void {
  const read = clockSchema.safeParse(json);
  if (!read.success) throw new SettingsRefusal(read.error.issues[0]!.message);
  db().transaction(() => {
    keep(CLOCK_KEY, read.data);
    noteShop(person, { kind: "policy", name: "clock", value: read.data.zone });
  });
}

/** Whose reports these are. @throws SettingsRefusal */
export function setLetterhead(json: unknown, person: Person): void {
  const read = letterheadSchema.safeParse(json);
  if (!read.success) throw new SettingsRefusal(read.error.issues[0]!.message);
  db().transaction(() => {
    keep(LETTERHEAD_KEY, read.data);
    noteShop(person, { kind: "policy", name: "letterhead", value: read.data.name });
  });
}

/** The place of a problem in a rule book as people call it: rule "glass-forward", reason. */
function placeName(json: unknown, field: string): string {
  const n = /^(rules|orders|efforts)\.(\d+)(?:\.(.*))?$/.exec(field);
  if (!n) return field;
  const item = (json as Record<string, { id?: string }[]>)[n[1]!]?.[Number(n[2])];
  return `${n[1]!.slice(0, -1)} ${item?.id ? `"${item.id}"` : Number(n[2]) + 1}${n[3] ? `, ${n[3]}` : ""}`;
}

/**
 * The rule book for jobs opened from now on: a new version; the ones before stay as they were.
 *
 * @throws SettingsRefusal naming the rule at fault; nothing is kept then
 */
export function setRuleBook(json: unknown, person: Person): RuleBook {
  const { book, problems } = ruleBookProblems(json);
  if (!book) {
    const [{ field, message }] = problems as [{ field: string; message: string }];
    throw new SettingsRefusal(`${placeName(json, field)}: ${message}`);
  }
  db().transaction(
    () => {
      const version =
        (db()
          .select({ n: max(ruleBooks.version) })
          .from(ruleBooks)
          .get()?.n ?? 0) + 1;
      db()
        .insert(ruleBooks)
        .values({ version, doc: book, madeAt: new Date().toISOString(), personId: person.id })
        .run();
      noteShop(person, { kind: "rules", version, rules: book.rules.length });
    },
    { behavior: "immediate" },
  );
  return book;
}

/**
 * The rule book from a file. An empty book owes nothing for any vehicle: it is no book to take in.
 * @throws SettingsRefusal
 */
export function importRuleBook(text: string, person: Person): RuleBook {
  let json: unknown;
  try {
    json = JSON.parse(plainFile(text));
  } catch (error) {
    throw new SettingsRefusal(
      `The file is not JSON: ${error instanceof Error ? error.message : "it cannot be read"}.`,
    );
  }
  const rules = (json as { rules?: unknown } | null)?.rules;
  if (Array.isArray(rules) && rules.length === 0)
    throw new SettingsRefusal(
      "rules: the file has none. With it nothing would ever be owed; the book stays as it is.",
    );
  return setRuleBook(json, person);
}

import { ruleBookProblems, type RuleBook } from "@/core/owed";
import type { GlassPolicy } from "@/core/ready";
import { Refusal } from "../auth/as-writer";
import { db } from "../db/client";
import { settings } from "../db/schema";

/** The setting cannot be as it was asked. The message names the field and the remedy. */
export class SettingsRefusal extends Refusal {
  override readonly name = "SettingsRefusal";
}

const put = (key: string, value: unknown): void =>
  void db().insert(settings).values({ key, value }).onConflictDoUpdate({ target: settings.key, set: { value } }).run(); // prettier-ignore

/** Which glass the shop accepts, for jobs opened from now on. @throws SettingsRefusal */
export function setGlassPolicy(policy: string): void {
  const known: GlassPolicy[] = ["maker-only", "equivalent-with-reason"];
  if (!known.includes(policy as GlassPolicy)) throw new SettingsRefusal("Choose one of the two ways.");
  put("glass.policy", policy);
}

/** The rule book for jobs opened from now on. @throws SettingsRefusal naming the rule at fault; nothing is kept then */
export function setRuleBook(json: unknown): RuleBook {
  const { book, problems } = ruleBookProblems(json);
  if (!book) {
    const [{ field, message }] = problems as [{ field: string; message: string }];
    const n = /^(rules|orders|efforts)\.(\d+)(?:\.(.*))?$/.exec(field);
    const item = n && (json as Record<string, { id?: string }[]>)[n[1]!]?.[Number(n[2])];
    throw new SettingsRefusal(`${n ? `${n[1]!.slice(0, -1)} ${item?.id ? `"${item.id}"` : Number(n[2]) + 1}${n[3] ? `, ${n[3]}` : ""}` : field}: ${message}`); // prettier-ignore
  }
  put("owed.rules", book);
  return book;
}

/** The rule book from a file. @throws SettingsRefusal */
export function importRuleBook(text: string): RuleBook {
  try {
    return setRuleBook(JSON.parse(text));
  } catch (error) {
    if (error instanceof SyntaxError) throw new SettingsRefusal(`The file is not JSON: ${error.message}.`);
    throw error;
  }
}

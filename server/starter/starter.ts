import { readFileSync } from "node:fs";
import path from "node:path";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { importKit } from "../kit/file";
import { importRuleBook } from "../settings/store";
import { sheetBook } from "../sheets/store";
import { ruleBook } from "../shop/store";
import { vehicleBook } from "../vehicles/store";

/** One of the files a new shop can begin with; they are also there to be downloaded. */
const example = (name: "rule-book" | "kit" | "vehicle" | "sheet"): string =>
  readFileSync(path.join(process.cwd(), "public", "examples", `${name}.json`), "utf8");

/** The shop has rules already; the starter set is for one that has nothing. */
export class StarterRefusal extends Refusal {
  override readonly name = "StarterRefusal";
}

/**
 * Puts the starter set into a new shop: the general rule book, typical kit, and one vehicle and one
 * sheet that say in their names that they are examples. All of it or nothing.
 *
 * @throws StarterRefusal where the shop has a rule book
 */
export function takeStarterSet(person: Person): void {
  db().transaction(
    () => {
      if (ruleBook().rules.length > 0)
        throw new StarterRefusal(
          "The shop has a rule book already. Take single example files in where you want them: each step names its own.",
        );
      importRuleBook(example("rule-book"), person);
      importKit(example("kit"), person);
      vehicleBook.takeExample(example("vehicle"));
      sheetBook.takeExample(example("sheet"));
    },
    { behavior: "immediate" },
  );
}

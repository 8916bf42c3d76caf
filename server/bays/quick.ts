import { z } from "zod";
import { plainly, problemsIn } from "@/core/book";
import { baySchema, type Bay } from "@/core/space/bay";
import { fourSides, QuickBayError } from "@/core/space/quick";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { noteShop } from "../log/shop";
import { BaysRefusal, keepBays, shopBays } from "./store";

const side = z.number().min(1500, "must be at least 1.5 m").max(60_000, "must be 60 m at the most");
const quickSchema = z.object({
  name: z.string().trim().min(1, "is needed").max(60),
  sides: z.tuple([side, side, side, side]),
  diagonalMm: side.nullable(),
  /** The wall one drives in through, 1 to 4; null where the place is open. */
  door: z.number().int().min(1).max(4).nullable(),
});

/** A short name for files and links, of small letters, figures and dashes. */
const idOf = (name: string, taken: readonly string[]): string => {
  const plain =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "")
      .slice(0, 30) || "bay";
  let id = plain;
  for (let n = 2; taken.includes(id); n++) id = `${plain}-${n}`;
  return id;
};

/** Adds a working place from a tape along each side. @throws BaysRefusal naming the tape at fault */
export function addQuickBay(json: unknown, person: Person): Bay {
  const read = quickSchema.safeParse(json, plainly);
  if (!read.success)
    throw new BaysRefusal(
      problemsIn(read.error, "bay")
        .map(
          (p) =>
            `${p.field.replace(/^sides\.(\d)$/, (_, n) => `wall ${Number(n) + 1}`)}: ${p.message}`,
        )
        .join("\n"),
    );
  const { name, sides, diagonalMm, door } = read.data;
  return db().transaction(() => {
    const had = shopBays();
    if (had.some((b) => b.name === name))
      throw new BaysRefusal(`name: the shop has a bay “${name}” already. Give it another name.`);
    let outline;
    try {
      outline = fourSides(sides, diagonalMm);
    } catch (error) {
      if (error instanceof QuickBayError) throw new BaysRefusal(error.message);
      throw error;
    }
    const [a, b] = door === null ? [] : [outline[door - 1]!, outline[door % 4]!];
    const kept = baySchema.parse({
      id: idOf(
        name,
        had.map((x) => x.id),
      ),
      name,
      outline: outline.map(([x, y]) => [Math.round(x), Math.round(y)]),
      doors: a && b ? [[a, b]] : [],
    });
    keepBays([...had, kept]);
    noteShop(person, { kind: "kit", item: "bays", what: `${name} from its tapes` });
    return kept;
  });
}

/** Takes a bay out. @throws BaysRefusal where it is gone already */
export function dropBay(id: string, person: Person): void {
  db().transaction(() => {
    const had = shopBays();
    const bay = had.find((b) => b.id === id);
    if (!bay) throw new BaysRefusal("Bays: this one is gone already. Look at the page again.");
    keepBays(had.filter((b) => b.id !== id));
    noteShop(person, { kind: "kit", item: "bays", what: `${bay.name} taken out` });
  });
}

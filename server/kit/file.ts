import { z } from "zod";
import { differences } from "@/core/book";
import {
  kitProblems,
  type Board,
  type CheckedInstrument,
  type KitKind,
  type ShopTool,
} from "@/core/kit";
import type { Stand } from "@/core/setout";
import type { Person } from "../auth/session";
import { plainFile } from "../book/file-text";
import { db } from "../db/client";
import { listCheckedInstruments, listStands } from "../shop/store";
import { KitRefusal, listBoards, listTools, writeKit } from "./store";

const FORMAT = "iridel.kit/1";
const item = z.looseObject({});
const fileSchema = z.object({
  format: z.literal(FORMAT, `must be "${FORMAT}"`),
  stands: z.array(item).default([]),
  instruments: z.array(item).default([]),
  boards: z.array(item).default([]),
  tools: z.array(item).default([]),
});
const LISTS = [
  ["stands", "stand"],
  ["instruments", "instrument"],
  ["boards", "board"],
  ["tools", "tool"],
] as const satisfies [string, KitKind][];

/** All of the kit as one document, to be kept or taken to another shop. */
export const kitFile = (): {
  format: string;
  stands: Stand[];
  instruments: CheckedInstrument[];
  boards: Board[];
  tools: ShopTool[];
} => ({
  format: FORMAT,
  stands: listStands(),
  instruments: listCheckedInstruments(),
  boards: listBoards(),
  tools: listTools(),
});

/**
 * Takes kit from a file. What is there already, figure for figure, stays; nothing is overwritten.
 *
 * @returns how many pieces were put into the kit
 * @throws KitRefusal naming the piece and the field; nothing is kept then
 */
export function importKit(text: string, person: Person): number {
  let json: unknown;
  try {
    json = JSON.parse(plainFile(text));
  } catch (error) {
    throw new KitRefusal(
      `The file is not JSON: ${error instanceof Error ? error.message : "it cannot be read"}.`,
    );
  }
  const read = fileSchema.safeParse(json);
  if (!read.success) {
    const [issue] = read.error.issues;
    throw new KitRefusal(`${issue!.path.join(".") || "The file"}: ${issue!.message}`);
  }
  const here = kitFile();
  const keyOf = (doc: Record<string, unknown>): string => String(doc.code ?? doc.id);
  return db().transaction(
    () => {
      let added = 0;
      for (const [list, kind] of LISTS)
        read.data[list].forEach((doc, n) => {
          const name = `${kind} ${keyOf(doc) === "undefined" ? n + 1 : keyOf(doc)}`;
          const [problem] = kitProblems(kind, doc);
          if (problem) throw new KitRefusal(`${name}, ${problem.field}: ${problem.message}`);
          const same = here[list].find((d) => keyOf({ ...d }) === keyOf(doc));
          const [first] = same ? differences({ ...same }, doc) : [];
          if (first)
            throw new KitRefusal(
              `${name}: the kit has one of this number, but ${first.path} differs (${first.before} there, ${first.after} here). Give the one in the file another number, or change yours by hand.`,
            );
          if (same) return;
          writeKit(kind, doc, true, person);
          added++;
        });
      return added;
    },
    { behavior: "immediate" },
  );
}

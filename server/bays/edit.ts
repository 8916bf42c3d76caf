import { z } from "zod";
import { plainly, problemsIn } from "@/core/book";
import { baySchema, type Bay } from "@/core/space/bay";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { noteShop } from "../log/shop";
import { BaysRefusal, keepBays, shopBays } from "./store";

/** Somebody else has changed the bay since it was opened. */
export class BayChanged extends BaysRefusal {}

const editSchema = z.object({ bay: baySchema, was: baySchema });
const same = (a: Bay, b: Bay): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Keeps a bay as it was drawn and surveyed.
 *
 * @param json with the bay as it `was` when it was opened
 * @throws BayChanged where it is another by now @throws BaysRefusal naming what is wrong in it
 */
export function editBay(json: unknown, person: Person): Bay {
  const read = editSchema.safeParse(json, plainly);
  if (!read.success)
    throw new BaysRefusal(
      problemsIn(read.error, "bay")
        .map((p) => `${p.field.replace(/^bay\./, "")}: ${p.message}`)
        .join("\n"),
    );
  const { bay, was } = read.data;
  return db().transaction(() => {
    const had = shopBays();
    const now = had.find((b) => b.id === bay.id);
    if (!now)
      throw new BayChanged(
        "This bay was taken out meanwhile. Export it here, and take it in again.",
      );
    if (!same(now, was))
      throw new BayChanged(
        "Somebody has changed this bay meanwhile. What you drew is still here: say whose is right.",
      );
    if (had.some((b) => b.id !== bay.id && b.name === bay.name))
      throw new BaysRefusal(
        `name: the shop has a bay “${bay.name}” already. Give it another name.`,
      );
    keepBays(had.map((b) => (b.id === bay.id ? bay : b)));
    noteShop(person, { kind: "kit", item: "bays", what: `${bay.name} drawn anew` });
    return bay;
  });
}

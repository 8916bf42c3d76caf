import { eq } from "drizzle-orm";
import { z } from "zod";
import { plainMessage, plainly } from "@/core/book";
import { mappingSchema, type ToolMapping } from "@/core/tool-report";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { settings } from "../db/schema";
import { noteShop } from "../log/shop";
import { RequestRefusal } from "../http/route";

const KEY = "tool.mappings";

/** How the shop's own tools were taught, in the order they were. */
export function toolMappings(): ToolMapping[] {
  const row = db().select().from(settings).where(eq(settings.key, KEY)).get();
  const read = z.array(mappingSchema).safeParse(row?.value);
  return read.success ? read.data : [];
}

/** Keeps how a tool names its things; one of the same id is taught anew. @throws RequestRefusal */
export function keepMapping(json: unknown, person: Person): ToolMapping {
  const read = mappingSchema.safeParse(json, plainly);
  if (!read.success) {
    const issue = read.error.issues[0]!;
    throw new RequestRefusal(400, `${issue.path.join(".") || "mapping"}: ${plainMessage(issue)}`);
  }
  return db().transaction(() => {
    const value = [...toolMappings().filter((m) => m.id !== read.data.id), read.data].slice(-40);
    db()
      .insert(settings)
      .values({ key: KEY, value })
      .onConflictDoUpdate({ target: settings.key, set: { value } })
      .run();
    noteShop(person, { kind: "policy", name: "tool-report", value: read.data.name });
    return read.data;
  });
}

import { asc, desc } from "drizzle-orm";
import { nanoid } from "nanoid";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { shopEvents } from "../db/schema";
import {
  digestOf,
  firstHash,
  lineHash,
  newSalt,
  verifyChain,
  type ChainReport,
  type StoredLine,
} from "./chain";

/** What is written down of the shop itself: who changed what it is bound by. */
export type ShopEvent =
  | { kind: "rules"; version: number; rules: number }
  | {
      kind: "policy";
      name: "glass" | "clock" | "letterhead" | "release" | "drives" | "tool-report";
      value: string;
    }
  | {
      kind: "person";
      personId: string;
      what: "entered" | "changed" | "let go" | "taken back" | "erased";
      role: string;
    }
  | { kind: "pin"; personId: string; by: "lead" | "own" }
  | { kind: "kit"; item: string; what: string }
  | { kind: "book"; book: "sheet" | "vehicle"; id: string; version: number }
  | { kind: "feed"; instrumentId: string; what: "token made" | "token revoked" }
  | { kind: "erased"; jobId: string; reason: string }
  | { kind: "shared"; jobId: string; what: string }
  | { kind: "brought-in"; jobId: string; head: string }
  | { kind: "restored"; from: string };

/** Who did it on the machine itself, without signing in. */
export const COMMAND_LINE = { id: "command-line", name: "Command line", initials: "–" };

type Author = Pick<Person, "id" | "name" | "initials">;
type Row = typeof shopEvents.$inferSelect;

const VERSION = 1;
const FIRST = firstHash("shop", "");

/**
 * Writes a line of the shop's log, sealed like a job's. Call inside the transaction that makes the
 * change.
 *
 * @param personal what belongs to a person (a name that was entered) and can be erased
 */
export function noteShop(
  person: Author,
  event: ShopEvent,
  personal: string | null = null,
  at = new Date().toISOString(),
): void {
  const last = db()
    .select({ seq: shopEvents.seq, hash: shopEvents.hash })
    .from(shopEvents)
    .orderBy(desc(shopEvents.seq))
    .limit(1)
    .get();
  const seq = (last?.seq ?? 0) + 1;
  const author = JSON.stringify({ id: person.id, name: person.name, initials: person.initials });
  const authorSalt = newSalt();
  const authorDigest = digestOf(authorSalt, author);
  const personalSalt = personal === null ? null : newSalt();
  const personalDigest = personal === null ? null : digestOf(personalSalt!, personal);
  const [id, body] = [nanoid(16), JSON.stringify(event)];
  const line = {
    log: "shop",
    seq,
    id,
    version: VERSION,
    at,
    receivedAt: at,
    clockBehindS: null,
    authorDigest,
    seen: null,
    body,
    personalDigest,
  };
  const hash = lineHash(line, last?.hash ?? FIRST);
  db()
    .insert(shopEvents)
    .values({
      seq,
      id,
      version: VERSION,
      at,
      personId: person.id,
      author,
      authorSalt,
      authorDigest,
      body,
      personal,
      personalSalt,
      personalDigest,
      hash,
    })
    .run();
}

export type ShopLine = {
  seq: number;
  at: string;
  by: string;
  event: ShopEvent;
  personal: string | null;
};

/** The shop's log, newest first. */
export const shopLines = (limit = 200): ShopLine[] =>
  db()
    .select()
    .from(shopEvents)
    .orderBy(desc(shopEvents.seq))
    .limit(limit)
    .all()
    .map((r) => ({
      seq: r.seq,
      at: r.at,
      by: r.author ? (JSON.parse(r.author) as Author).name : "Erased on request",
      event: JSON.parse(r.body) as ShopEvent,
      personal: r.personal,
    }));

const toStored = (r: Row): StoredLine => ({
  log: "shop",
  seq: r.seq,
  id: r.id,
  version: r.version,
  at: r.at,
  receivedAt: r.at,
  clockBehindS: null,
  authorDigest: r.authorDigest,
  seen: null,
  body: r.body,
  personalDigest: r.personalDigest,
  hash: r.hash,
  author: { text: r.author, salt: r.authorSalt, digest: r.authorDigest },
  personal: { text: r.personal, salt: r.personalSalt, digest: r.personalDigest },
});

/** Follows the shop's log from its first line to its last. */
export const verifyShop = (): ChainReport =>
  verifyChain(
    FIRST,
    db().select().from(shopEvents).orderBy(asc(shopEvents.seq)).all().map(toStored),
  );

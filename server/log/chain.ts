import { createHash, randomBytes } from "node:crypto";

/**
 * One sealed line of a log. Each line's hash covers what stands in it and the hash of the line
 * before, so that nothing before a known hash can be changed, left out or put in between without
 * the chain breaking (Haber & Stornetta 1991).
 *
 * What belongs to a person (the author's name, a customer's data) enters by a digest with a salt of
 * its own: erased on request, the name and the salt go, the digest stays, and the chain still
 * verifies.
 */
export type SealedLine = {
  /** Which log: a job's id, or "shop". */
  log: string;
  seq: number;
  id: string;
  version: number;
  at: string;
  receivedAt: string | null;
  clockBehindS: number | null;
  authorDigest: string;
  seen: number | null;
  /** The exact text that is stored. */
  body: string;
  personalDigest: string | null;
};

export const sha256 = (data: string | Uint8Array): string =>
  createHash("sha256").update(data).digest("hex");

/** A salt of 128 bits: without it a short name could be guessed from its digest. */
export const newSalt = (): string => randomBytes(16).toString("hex");

/** The digest by which a personal text enters the chain. */
export const digestOf = (salt: string, text: string): string => sha256(`${salt}\n${text}`);

/**
 * The hash of a line. The parts are joined as a JSON array, in which no part can run into the next.
 */
export const lineHash = (line: SealedLine, previous: string): string =>
  sha256(
    JSON.stringify([
      "iridel.line/1",
      line.log,
      line.seq,
      line.id,
      line.version,
      line.at,
      line.receivedAt,
      line.clockBehindS,
      line.authorDigest,
      line.seen,
      line.body,
      line.personalDigest,
      previous,
    ]),
  );

/**
 * What stands before a log's first line: which log it is, and the digest of the documents it stands
 * on.
 */
export const firstHash = (log: string, ground: string): string =>
  sha256(JSON.stringify(["iridel.log/1", log, ground]));

/** A person's own texts beside their digest; both are null once erased. */
export type Salted = { text: string | null; salt: string | null; digest: string | null };

/** A line as a database or a file keeps it, with what its digests were made of. */
export type StoredLine = SealedLine & { hash: string; author: Salted; personal: Salted };

export type ChainReport =
  /**
   * `head` is the hash of the last line; `erased` counts lines whose personal part was erased on
   * request.
   */
  | { ok: true; lines: number; head: string; erased: number }
  /** The first line that does not fit, and in what. */
  | { ok: false; lines: number; seq: number; problem: string };

/**
 * Whether a salted text is what its digest says; an erased one cannot be told any more, and is
 * counted.
 */
const saltedFits = (s: Salted): "fits" | "erased" | "differs" => {
  if (s.text === null || s.salt === null) return s.text === s.salt ? "erased" : "differs";
  return digestOf(s.salt, s.text) === s.digest ? "fits" : "differs";
};

/**
 * Follows a log from its first line to its last. It reads the stored texts as they are: nothing is
 * upcast before.
 *
 * @param first what {@link firstHash} gives for the log and its documents
 * @param lines in order
 */
export function verifyChain(first: string, lines: readonly StoredLine[]): ChainReport {
  let previous = first;
  let erased = 0;
  for (const [i, line] of lines.entries()) {
    const broken = (problem: string): ChainReport => ({
      ok: false,
      lines: lines.length,
      seq: line.seq,
      problem,
    });
    if (line.seq !== i + 1) return broken(`Line ${i + 1} is missing.`);
    const author = saltedFits(line.author);
    if (author === "differs" || line.author.digest !== line.authorDigest)
      return broken("Its author was changed.");
    const personal = line.personalDigest === null ? "fits" : saltedFits(line.personal);
    if (personal === "differs") return broken("Its personal part was changed.");
    if (line.hash !== lineHash(line, previous))
      return broken("It, or what stands before it, was changed.");
    if (author === "erased" || personal === "erased") erased++;
    previous = line.hash;
  }
  return { ok: true, lines: lines.length, head: previous, erased };
}

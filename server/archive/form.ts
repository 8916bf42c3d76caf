import { z } from "zod";
import type { StoredGround } from "@/core/job";
import { firstHash, sha256, verifyChain, type StoredLine } from "../log/chain";
import { groundDigest } from "../log/ground";
import { joinPersonal } from "../log/personal";
import { ArchiveRefusal, unpack, type Entry } from "./zip";

const hex = z.string().regex(/^[0-9a-f]{64}$/);
const time = z.iso.datetime();
const count = z.number().int().min(0);
const salted = z.object({ text: z.string().nullable(), salt: z.string().nullable() });

const line = z.strictObject({
  seq: z.number().int().min(1),
  id: z.string().min(1).max(64),
  version: z.number().int().min(1),
  at: time,
  receivedAt: time.nullable(),
  clockBehindS: z.number().nullable(),
  seen: count.nullable(),
  body: z.string(),
  author: salted.extend({ digest: hex }),
  personal: salted.extend({ digest: hex.nullable() }),
  hash: hex,
});

/** A job's log with what it stands on, as it lies in the shop's database. */
const logSchema = z.strictObject({
  form: z.literal("iridel.log/1"),
  log: z.string().regex(/^[A-Za-z0-9_-]{6,40}$/),
  number: z.number().int().min(1),
  createdAt: time,
  updatedAt: time,
  ground: z.record(z.string(), z.unknown()),
  documents: z.array(
    z.strictObject({
      kind: z.enum(["record", "report"]),
      version: z.number().int().min(1),
      sha256: hex,
      program: z.string(),
      madeAt: time,
      erased: z.boolean(),
    }),
  ),
  photos: z.array(
    z.strictObject({
      sha256: hex,
      width: z.number().int().min(1),
      height: z.number().int().min(1),
      takenAt: z.string().nullable(),
      keptAt: time,
    }),
  ),
  lines: z.array(line).min(1).max(100_000),
});

const manifestSchema = z.strictObject({
  form: z.literal("iridel.archive/1"),
  job: z.number().int(),
  log: z.strictObject({ lines: count, head: hex }),
  entries: z.array(z.strictObject({ name: z.string(), bytes: count, sha256: hex })),
});

export type ArchivedLog = Omit<z.infer<typeof logSchema>, "ground"> & { ground: StoredGround };
export type ArchivedLine = ArchivedLog["lines"][number];

/** An archive that holds together: what it says is what was sealed. */
export type OpenArchive = {
  log: ArchivedLog;
  /** Hash of the last line: what a report's own head can be compared with. */
  head: string;
  /** Lines whose personal part was erased on request. */
  erased: number;
  /** The head that each handed-over record and report shows, which lines came after. */
  shown: readonly { version: number; head: string }[];
  entries: ReadonlyMap<string, Uint8Array>;
};

export const paperName = (kind: "record" | "report", version: number): string =>
  `papers/${kind}-${version}.${kind === "record" ? "json" : "pdf"}`;
export const photoName = (sha: string): string => `photos/${sha}.jpg`;

const asJson = (value: unknown): Uint8Array =>
  new TextEncoder().encode(`${JSON.stringify(value, null, 1)}\n`);

/** The entries of an archive, with the list of them that names each by its SHA-256. */
export function withManifest(log: ArchivedLog, others: readonly Entry[]): Entry[] {
  const entries = [{ name: "log.json", bytes: asJson(log) }, ...others].toSorted((a, b) =>
    a.name < b.name ? -1 : 1,
  );
  const manifest: z.infer<typeof manifestSchema> = {
    form: "iridel.archive/1",
    job: log.number,
    log: { lines: log.lines.length, head: log.lines.at(-1)!.hash },
    entries: entries.map(({ name, bytes }) => ({
      name,
      bytes: bytes.length,
      sha256: sha256(bytes),
    })),
  };
  return [{ name: "manifest.json", bytes: asJson(manifest) }, ...entries];
}

/** @throws ArchiveRefusal where an entry is missing, no JSON, of another version or malformed */
function readJson<T>(
  entries: ReadonlyMap<string, Uint8Array>,
  name: string,
  form: string,
  schema: z.ZodType<T>,
): T {
  const bytes = entries.get(name);
  if (!bytes) throw new ArchiveRefusal(`${name} is missing: this is no archive of a job.`);
  let doc: unknown;
  try {
    doc = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(bytes));
  } catch {
    throw new ArchiveRefusal(`${name} is no JSON. Ask for the archive as it was made.`);
  }
  const said = doc && typeof doc === "object" && "form" in doc ? doc.form : null;
  if (said !== form)
    throw new ArchiveRefusal(
      `${name} is of the form ${JSON.stringify(said)?.slice(0, 40)}; this program reads ${form}. A newer Iridel may have made it.`,
    );
  const read = schema.safeParse(doc);
  if (!read.success) {
    const { path, message } = read.error.issues[0]!;
    throw new ArchiveRefusal(`${name}, ${path.join(".") || "as a whole"}: ${message}.`);
  }
  return read.data;
}

/** A line as the chain knows it. */
const sealed = (log: string, { author, personal, ...l }: ArchivedLine): StoredLine => ({
  ...l,
  log,
  authorDigest: author.digest,
  personalDigest: personal.digest,
  author,
  personal,
});

/**
 * Opens an archive and holds everything in it against everything else: entries against the list,
 * lines against the chain, papers and photos against the lines that name them. It needs no
 * database.
 *
 * @throws ArchiveRefusal naming the first thing that does not fit
 */
export function openArchive(packed: Uint8Array): OpenArchive {
  const entries = new Map(unpack(packed).map((e) => [e.name, e.bytes]));
  const manifest = readJson(entries, "manifest.json", "iridel.archive/1", manifestSchema);
  const listed = new Set(manifest.entries.map((e) => e.name));
  for (const name of entries.keys())
    if (name !== "manifest.json" && !listed.has(name))
      throw new ArchiveRefusal(
        `${name} does not stand in the archive’s list: it was put in later.`,
      );
  for (const { name, bytes, sha256: said } of manifest.entries) {
    const held = entries.get(name);
    if (!held) throw new ArchiveRefusal(`${name} stands in the archive’s list and is missing.`);
    if (held.length !== bytes || sha256(held) !== said)
      throw new ArchiveRefusal(`${name} was altered: it is not what the archive’s list names.`);
  }
  const read = readJson(entries, "log.json", "iridel.log/1", logSchema);
  const log: ArchivedLog = { ...read, ground: read.ground as unknown as StoredGround };
  if (!log.ground.intake) throw new ArchiveRefusal("log.json, ground.intake: it is missing.");
  const report = verifyChain(
    firstHash(log.log, groundDigest(log.ground)),
    log.lines.map((l) => sealed(log.log, l)),
  );
  if (!report.ok)
    throw new ArchiveRefusal(
      report.seq === 1
        ? `The log is broken at line 1, or in the documents before it. ${report.problem}`
        : `The log is broken at line ${report.seq}. ${report.problem}`,
    );
  if (manifest.log.head !== report.head || manifest.job !== log.number)
    throw new ArchiveRefusal("manifest.json names another log than the one in log.json.");
  checkCustomer(log);
  checkNamed(log, entries);
  const shown = headsShown(log, entries);
  return { log, head: report.head, erased: report.erased, shown, entries };
}

/** The customer's own data is no part of what is sealed with the documents: the first line seals it. */
function checkCustomer({ ground, lines }: ArchivedLog): void {
  const [first] = lines;
  bodyOf(first!);
  const { intake } = joinPersonal<{ kind: string; intake?: Record<string, unknown> }>(
    first!.body,
    first!.personal.text,
  );
  for (const field of ["customer", "plate", "complaint"] as const)
    if (intake?.[field] !== ground.intake[field])
      throw new ArchiveRefusal(
        `log.json, ground.intake.${field}: the first line of the log says something else.`,
      );
}

/** Papers and photos are those that the sealed lines name. @throws ArchiveRefusal */
function checkNamed(log: ArchivedLog, entries: ReadonlyMap<string, Uint8Array>): void {
  const bodies = log.lines.map((l) => bodyOf(l));
  const named = bodies.filter((b) => b["kind"] === "document");
  for (const d of log.documents) {
    const name = paperName(d.kind, d.version);
    const fits = named.some(
      (b) => b["document"] === d.kind && b["version"] === d.version && b["sha256"] === d.sha256,
    );
    if (!fits) throw new ArchiveRefusal(`${name}: no line of the log names this paper.`);
    const bytes = entries.get(name);
    if (!d.erased && (!bytes || sha256(bytes) !== d.sha256))
      throw new ArchiveRefusal(`${name} is not the paper that the log names.`);
  }
  if (named.length !== log.documents.length)
    throw new ArchiveRefusal("log.json, documents: a paper that the log names is missing.");
  const photos = new Set(
    bodies.flatMap((b) => (b["kind"] === "photo" ? [String(b["photo"])] : [])),
  );
  for (const { sha256: sha } of log.photos) {
    const bytes = entries.get(photoName(sha));
    if (!photos.delete(sha) || !bytes || sha256(bytes) !== sha)
      throw new ArchiveRefusal(`${photoName(sha)} is not a photo that the log names.`);
  }
  const [missing] = photos;
  if (missing) throw new ArchiveRefusal(`${photoName(missing)} is named by the log and missing.`);
}

const sealSchema = z.object({ seal: z.object({ lines: count, head: hex }).optional() });

/** What the records say of the log they were made from. @throws ArchiveRefusal where it is another */
function headsShown(
  { documents, lines }: ArchivedLog,
  entries: ReadonlyMap<string, Uint8Array>,
): OpenArchive["shown"] {
  return documents
    .filter((d) => d.kind === "record" && !d.erased)
    .flatMap(({ version }) => {
      const name = paperName("record", version);
      const doc: unknown = JSON.parse(new TextDecoder().decode(entries.get(name)));
      const seal = sealSchema.parse(doc).seal;
      if (!seal) return [];
      if (lines[seal.lines - 1]?.hash !== seal.head)
        throw new ArchiveRefusal(`${name} was made from another log than the one in log.json.`);
      return [{ version, head: seal.head }];
    });
}

/** What a line says, without what is a person's own. @throws ArchiveRefusal for no JSON */
function bodyOf({ seq, body }: ArchivedLine): Record<string, unknown> {
  try {
    const said: unknown = JSON.parse(body);
    if (said && typeof said === "object" && "kind" in said) return said as Record<string, unknown>;
  } catch {
    // Said below.
  }
  throw new ArchiveRefusal(`log.json, line ${seq}: it says nothing that can be read.`);
}

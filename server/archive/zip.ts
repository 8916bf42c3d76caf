/**
 * The one ZIP form an archive has: entries stored as they are, in the order of their names, nothing
 * before, between or after them, every other field at one fixed value. Any unpacking tool opens it;
 * the same entries always give the same bytes, so whatever departs from them was not written here.
 */

/** The archive cannot be taken; the message names what is wrong and what to do. */
export class ArchiveRefusal extends Error {
  override readonly name = "ArchiveRefusal";
}

export type Entry = { name: string; bytes: Uint8Array };

export const MAX_ARCHIVE_BYTES = 200_000_000;
const MAX_ENTRIES = 2000;
/** One folder at most, nothing that a path could climb out by, nothing a file system argues about. */
const NAME = /^(?:[a-z0-9][a-z0-9-]{0,80}\/)?[a-z0-9][a-z0-9-]{0,80}\.[a-z0-9]{2,5}$/;

const [LOCAL, CENTRAL, END] = [0x04034b50, 0x02014b50, 0x06054b50];
const [LOCAL_BYTES, CENTRAL_BYTES, END_BYTES] = [30, 46, 22];
/** 1 January 1980, the first day the form knows: a time of packing would make two of one archive. */
const FIRST_DAY = 0x0021;
const VERSION = 20;

const CRC_TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});

/** CRC-32 with the polynomial 0x04C11DB7, reflected (ISO 3309), as ZIP asks. */
export function crc32(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const b of bytes) c = CRC_TABLE[(c ^ b) & 0xff]! ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}

/** What both headers of an entry hold alike, from the version that unpacks it to its name's length. */
function shared(view: DataView, at: number, { name, bytes }: Entry): void {
  view.setUint16(at, VERSION, true);
  view.setUint16(at + 8, FIRST_DAY, true);
  view.setUint32(at + 10, crc32(bytes), true);
  view.setUint32(at + 14, bytes.length, true);
  view.setUint32(at + 18, bytes.length, true);
  view.setUint16(at + 22, name.length, true);
}

/** @throws ArchiveRefusal for a name that has no place in an archive */
function checkNames(names: readonly string[]): void {
  if (names.length > MAX_ENTRIES)
    throw new ArchiveRefusal(
      `It holds more than ${MAX_ENTRIES} files: that is no archive of a job.`,
    );
  for (const [i, name] of names.entries()) {
    if (!NAME.test(name))
      throw new ArchiveRefusal(
        `It holds a file named ${JSON.stringify(name.slice(0, 60))}: no archive of a job has that.`,
      );
    if (i > 0 && !(names[i - 1]! < name))
      throw new ArchiveRefusal(
        `${name} stands twice or out of order in it. Ask for the archive again.`,
      );
  }
}

/** Packs entries, in any order. @throws ArchiveRefusal for a name no archive has, or the same twice */
export function pack(unordered: readonly Entry[]): Uint8Array {
  const entries = unordered.toSorted((a, b) => (a.name < b.name ? -1 : 1));
  checkNames(entries.map((e) => e.name));
  const size = entries.reduce(
    (s, e) => s + LOCAL_BYTES + CENTRAL_BYTES + 2 * e.name.length + e.bytes.length,
    END_BYTES,
  );
  if (size > MAX_ARCHIVE_BYTES)
    throw new ArchiveRefusal(
      `The archive would be larger than ${MAX_ARCHIVE_BYTES / 1e6} MB. Take some photos from the job.`,
    );
  const packed = new Uint8Array(size);
  const view = new DataView(packed.buffer);
  const ascii = (at: number, text: string): void => {
    for (let i = 0; i < text.length; i++) packed[at + i] = text.charCodeAt(i);
  };
  const starts: number[] = [];
  let at = 0;
  for (const entry of entries) {
    starts.push(at);
    view.setUint32(at, LOCAL, true);
    shared(view, at + 4, entry);
    ascii(at + LOCAL_BYTES, entry.name);
    packed.set(entry.bytes, at + LOCAL_BYTES + entry.name.length);
    at += LOCAL_BYTES + entry.name.length + entry.bytes.length;
  }
  const list = at;
  for (const [i, entry] of entries.entries()) {
    view.setUint32(at, CENTRAL, true);
    view.setUint16(at + 4, VERSION, true);
    shared(view, at + 6, entry);
    view.setUint32(at + 42, starts[i]!, true);
    ascii(at + CENTRAL_BYTES, entry.name);
    at += CENTRAL_BYTES + entry.name.length;
  }
  view.setUint32(at, END, true);
  view.setUint16(at + 8, entries.length, true);
  view.setUint16(at + 10, entries.length, true);
  view.setUint32(at + 12, at - list, true);
  view.setUint32(at + 16, list, true);
  return packed;
}

/**
 * Takes an archive apart, and packs what it found again: a byte that differs was changed, and lies
 * in an entry, whose check sum then differs, or in the form itself.
 *
 * @throws ArchiveRefusal naming the entry that was altered, or what departs from the form
 */
export function unpack(packed: Uint8Array): Entry[] {
  if (packed.length > MAX_ARCHIVE_BYTES)
    throw new ArchiveRefusal(
      `The file is larger than ${MAX_ARCHIVE_BYTES / 1e6} MB: no archive of a job is.`,
    );
  const view = new DataView(packed.buffer, packed.byteOffset, packed.byteLength);
  const entries: Entry[] = [];
  let at = 0;
  while (at + LOCAL_BYTES <= packed.length && view.getUint32(at, true) === LOCAL) {
    if (view.getUint16(at + 8, true) !== 0)
      throw new ArchiveRefusal(
        "Its files are compressed: an archive of a job holds them as they are. Ask for the file as it was made.",
      );
    const [length, size] = [view.getUint16(at + 26, true), view.getUint32(at + 18, true)];
    const from = at + LOCAL_BYTES + length;
    if (length > 200 || from + size > packed.length) break;
    const name = String.fromCharCode(...packed.subarray(at + LOCAL_BYTES, from));
    entries.push({ name, bytes: packed.subarray(from, from + size) });
    if (entries.length > MAX_ENTRIES) break;
    at = from + size;
  }
  if (entries.length === 0)
    throw new ArchiveRefusal("This is no archive of a job. Choose the ZIP that Hand over gives.");
  checkNames(entries.map((e) => e.name));
  let start = 0;
  for (const { name, bytes } of entries) {
    if (view.getUint32(start + 14, true) !== crc32(bytes))
      throw new ArchiveRefusal(
        `${name} was altered: its check sum does not fit. Ask for the archive again.`,
      );
    start += LOCAL_BYTES + name.length + bytes.length;
  }
  const again = pack(entries);
  const differs = again.length !== packed.length || again.some((b, i) => b !== packed[i]);
  if (differs)
    throw new ArchiveRefusal(
      "The file was changed around its entries, or packed by another program. Ask for the archive as it was made.",
    );
  return entries;
}

import fc from "fast-check";
import { unzipSync, zipSync } from "fflate";
import { describe, expect, it } from "vitest";
import { crc32, pack, unpack, type Entry } from "./zip";

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
const NAMES = ["log.json", "papers/record-1.json", "photos/a1.jpg", "readings.csv", "x.svg"];
const some = fc
  .uniqueArray(
    fc.record({ name: fc.constantFrom(...NAMES), bytes: fc.uint8Array({ maxLength: 400 }) }),
    { selector: (e) => e.name, minLength: 1 },
  )
  .map((list): Entry[] => list);
const byName = (list: readonly Entry[]): Entry[] =>
  list.toSorted((a, b) => (a.name < b.name ? -1 : 1));

describe("the archive's ZIP", () => {
  it("has the check sums that the form asks for", () => {
    expect(crc32(utf8("123456789"))).toBe(0xcbf43926);
    expect(crc32(utf8(""))).toBe(0);
  });

  it("comes apart as it was put together, here and in another program", () => {
    fc.assert(
      fc.property(some, (entries) => {
        const packed = pack(entries);
        expect(unpack(packed)).toEqual(byName(entries));
        const elsewhere = unzipSync(packed);
        expect(Object.keys(elsewhere).sort()).toEqual(entries.map((e) => e.name).sort());
        for (const e of entries) expect(elsewhere[e.name]).toEqual(e.bytes);
        expect(pack(entries.toReversed())).toEqual(packed);
      }),
    );
  });

  it("names the entry in which any byte was changed, and refuses any other change", () => {
    const entries = byName(
      NAMES.map((name, i) => ({ name, bytes: utf8(`${name} `.repeat(20 + 7 * i)) })),
    );
    const packed = pack(entries);
    const spans: [name: string, from: number, to: number][] = [];
    for (let at = 0, i = 0; i < entries.length; i++) {
      const from = at + 30 + entries[i]!.name.length;
      spans.push([entries[i]!.name, from, from + entries[i]!.bytes.length]);
      at = from + entries[i]!.bytes.length;
    }
    const any = fc.record({
      at: fc.integer({ min: 0, max: packed.length - 1 }),
      by: fc.integer({ min: 1, max: 255 }),
    });
    let inside = 0;
    fc.assert(
      fc.property(any, ({ at, by }) => {
        const changed = packed.slice();
        changed[at] = changed[at]! ^ by;
        const span = spans.find(([, from, to]) => at >= from && at < to);
        if (!span) {
          expect(() => unpack(changed)).toThrow();
          return;
        }
        inside++;
        expect(() => unpack(changed)).toThrow(`${span[0]} was altered`);
      }),
      { numRuns: 2000 },
    );
    expect(inside).toBeGreaterThan(1000);
    for (let cut = 0; cut < packed.length; cut += 7)
      expect(() => unpack(packed.subarray(0, cut))).toThrow();
    expect(() => unpack(Uint8Array.from([...packed, 0]))).toThrow(/changed around/);
  });

  it("refuses compression, paths that climb, the same name twice, and what is no archive", () => {
    expect(() => unpack(zipSync({ "log.json": new Uint8Array(50_000_000) }))).toThrow(/compressed/);
    expect(() => unpack(zipSync({ "log.json": utf8("{}") }, { level: 0 }))).toThrow(
      /packed by another program/,
    );
    for (const name of [
      "../log.json",
      "/etc/log.json",
      "a/../b.json",
      "a\\b.json",
      "A.JSON",
      "a/b/c.json",
      "con",
    ]) {
      expect(() => pack([{ name, bytes: utf8("") }])).toThrow(/a file named/);
      expect(() => unpack(zipSync({ [name]: utf8("{}") }, { level: 0 }))).toThrow(/a file named/);
    }
    const twice = { name: "log.json", bytes: utf8("{}") };
    expect(() => pack([twice, twice])).toThrow(/twice/);
    for (const no of [new Uint8Array(), utf8("PK"), utf8("plain text, long enough to be a header")])
      expect(() => unpack(no)).toThrow(/no archive of a job/);
  });
});

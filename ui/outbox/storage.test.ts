import * as fake from "fake-indexeddb";
import { afterAll, beforeAll, expect, it, vi } from "vitest";
import { stubLocalStorage } from "@/tests/local-storage";
import type * as Storage from "./storage";

/** The module anew, with a database under it: it remembers the one it found first. */
let storage: typeof Storage;
beforeAll(async () => {
  for (const [name, value] of Object.entries(fake))
    if (name.startsWith("IDB")) vi.stubGlobal(name, value);
  vi.stubGlobal("indexedDB", new fake.IDBFactory());
  stubLocalStorage();
  vi.resetModules();
  storage = await import("./storage");
});
afterAll(() => {
  vi.unstubAllGlobals();
  vi.resetModules();
});

const line = (id: string): Parameters<typeof Storage.keepLines>[0][number] => ({
  id,
  jobId: "j",
  author: null,
  takenAt: "2026-11-03T09:00:00.000Z",
  baseSeq: 0,
  send: { kind: "touch", touch: "cranked" },
  show: { kind: "touch", touch: "cranked" },
  state: { kind: "waiting" },
});

it("a line written while the queue is being read is in what is read, whenever it was written", async () => {
  await storage.keepLines([line("before")]);
  for (let wait = 0; wait < 12; wait++) {
    const reading = storage.linesInSight("j");
    for (let n = 0; n < wait; n++) await Promise.resolve();
    const keeping = storage.keepLines([line(`at-${wait}`)]);
    const seen = (await reading).map((l) => l.id);
    expect(seen).toEqual(["before", ...Array.from({ length: wait + 1 }, (_, i) => `at-${i}`)]);
    await keeping;
    expect((await storage.linesOf("j")).map((l) => l.id)).toEqual(seen);
  }
});

import { vi } from "vitest";

/** The browser's plain storage, for tests that run without a browser; it begins empty. */
export function stubLocalStorage(): void {
  const kept = new Map<string, string>();
  vi.stubGlobal("localStorage", {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
    key: (n: number) => [...kept.keys()][n] ?? null,
    get length() {
      return kept.size;
    },
  });
}

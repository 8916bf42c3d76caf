import { existsSync, readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import ts from "typescript";
import { expect, it } from "vitest";

const ROOMS = ["app", "ui", "workers", "server", "devices", "core", "demo"];

const sources = ROOMS.flatMap((room) =>
  readdirSync(room, { recursive: true, encoding: "utf8" })
    .filter((f) => /\.tsx?$/.test(f) && !/\.test\.tsx?$/.test(f))
    .map((f) => path.join(room, f)),
);

/** The files of the house that a file imports from, types included: lint does not follow those. */
function importsOf(file: string): string[] {
  const { importedFiles } = ts.preProcessFile(readFileSync(file, "utf8"), true, true);
  return importedFiles.flatMap(({ fileName }) => {
    const from = fileName.startsWith("@/")
      ? fileName.slice(2)
      : fileName.startsWith(".")
        ? path.join(path.dirname(file), fileName)
        : null;
    if (from === null) return [];
    const ends = [".ts", ".tsx", "/index.ts"];
    return ends.map((end) => path.normalize(from + end)).filter((f) => existsSync(f));
  });
}

it("no file of the house imports itself by any way round, types included", () => {
  const arrows = new Map(sources.map((f) => [f, importsOf(f)]));
  const done = new Set<string>();
  const circles: string[] = [];
  const walk = (file: string, way: readonly string[]): void => {
    const at = way.indexOf(file);
    if (at >= 0) circles.push([...way.slice(at), file].join(" -> "));
    if (at >= 0 || done.has(file)) return;
    for (const next of arrows.get(file) ?? []) walk(next, [...way, file]);
    done.add(file);
  };
  for (const file of sources) walk(file, []);
  expect(sources.length).toBeGreaterThan(300);
  expect(circles).toEqual([]);
});

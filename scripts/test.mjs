// npm test: installs what is missing, then lint, types, unit tests, build, and the real interface
// in Chromium.
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import path from "node:path";
import { built, commit, packages, root, seconds, step, steps, testPrograms } from "./ready.mjs";

const results = path.join(root, "var/results");
packages();
testPrograms();
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });

// Two at a time, on two cores.
await steps([
  ["types", "npm", ["run", "--silent", "types"]],
  ["lint", "npx", ["eslint", "."]],
]);
await steps([
  ["format", "npx", ["prettier", "--check", ".", "--log-level", "warn"]],
  ["unused", "npx", ["knip"]],
]);
step("unit tests", "npx", [
  "vitest",
  "run",
  "--reporter=default",
  "--reporter=json",
  "--outputFile.json=var/results/unit.json",
]);
built();
step("interface tests", "npx", ["playwright", "test"], {
  PLAYWRIGHT_JSON_OUTPUT_NAME: "var/results/e2e.json",
});

const read = (name) => JSON.parse(readFileSync(path.join(results, name), "utf8"));
const unit = read("unit.json");
const e2e = existsSync(path.join(results, "e2e.json"))
  ? read("e2e.json").stats
  : { expected: 0, unexpected: 1, flaky: 0 };
console.log(`\nAll of it in ${seconds()} at ${commit()}.`);
console.log(`unit: ${unit.numPassedTests} passed, ${unit.numFailedTests} failed`);
console.log(
  `interface: ${e2e.expected + e2e.flaky} passed, ${e2e.flaky} of them only at the second go; ${e2e.unexpected} failed`,
);

// What every command needs first: the right Node, the packages of the lock file, and (for tests)
// Chromium and pdftotext.
import { execFileSync, spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import process from "node:process";

export const root = path.resolve(import.meta.dirname, "..");
const started = Date.now();

export const seconds = (since = started) => `${((Date.now() - since) / 1000).toFixed(1)} s`;

/**
 * Runs one step with its output shown and its time printed; ends the whole command when it fails.
 */
export function step(name, command, args, env = {}) {
  const from = Date.now();
  console.log(`\n== ${name}`);
  const { status, error } = spawnSync(command, args, {
    cwd: root,
    stdio: "inherit",
    env: { ...process.env, ...env },
  });
  if (error) console.error(`${command}: ${error.message}`);
  console.log(`== ${name}: ${status === 0 ? "done" : "FAILED"} in ${seconds(from)}`);
  if (status !== 0) process.exit(status ?? 1);
}

/**
 * Runs steps that do not touch each other's files side by side; each one's output is shown whole
 * when it ends.
 */
export async function steps(list) {
  const codes = await Promise.all(
    list.map(
      ([name, command, args]) =>
        new Promise((done) => {
          const from = Date.now();
          const child = spawn(command, args, { cwd: root, env: process.env });
          let output = "";
          for (const stream of [child.stdout, child.stderr])
            stream.on("data", (text) => (output += text));
          child.on("error", (error) => (output += `${command}: ${error.message}\n`));
          child.on("close", (code) => {
            console.log(
              `\n== ${name}\n${output}== ${name}: ${code === 0 ? "done" : "FAILED"} in ${seconds(from)}`,
            );
            done(code ?? 1);
          });
        }),
    ),
  );
  const failed = codes.find((code) => code !== 0);
  if (failed !== undefined) process.exit(failed);
}

/** Installs the locked packages unless this very lock file is already installed. */
export function packages() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Node ${process.versions.node} is too old: Iridel needs Node 20.19 or newer.`);
    process.exit(1);
  }
  const lock = createHash("sha256")
    .update(readFileSync(path.join(root, "package-lock.json")))
    .digest("hex");
  const stamp = path.join(root, "node_modules/.iridel-installed");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  step("packages", "npm", ["ci", "--no-audit", "--no-fund"]);
  writeFileSync(stamp, lock);
}

const has = (program) => spawnSync("sh", ["-c", `command -v ${program}`]).status === 0;

/**
 * Chromium drives the interface in tests, pdftotext reads the report back. Both come from Debian.
 */
export function testPrograms() {
  const missing = [
    ["chromium", "chromium"],
    ["pdftotext", "poppler-utils"],
  ].filter(([program]) => !has(program));
  if (missing.length === 0) return;
  const names = missing.map(([, name]) => name);
  if (process.getuid?.() !== 0 || !has("apt-get")) {
    console.error(
      `The tests need ${names.join(" and ")}. Install with: sudo apt-get install -y ${names.join(" ")}`,
    );
    process.exit(1);
  }
  step("package lists", "apt-get", ["update", "-qq"]);
  step(
    names.join(" and "),
    "apt-get",
    ["install", "-y", "-qq", "--no-install-recommends", ...names],
    { DEBIAN_FRONTEND: "noninteractive" },
  );
}

const ROOMS = ["app", "ui", "workers", "server", "devices", "core", "drizzle", "public"];
const FILES = [
  "proxy.ts",
  "instrumentation.ts",
  "package.json",
  "package-lock.json",
  "next.config.ts",
  "postcss.config.mjs",
  "tsconfig.json",
];

function newest(place) {
  if (!existsSync(place)) return 0;
  if (!statSync(place).isDirectory()) return statSync(place).mtimeMs;
  return Math.max(0, ...readdirSync(place).map((name) => newest(path.join(place, name))));
}

/** Builds the production bundle unless nothing it is made of changed since. */
export function built() {
  const mark = path.join(root, ".next/BUILD_ID");
  const changed = Math.max(...[...ROOMS, ...FILES].map((f) => newest(path.join(root, f))));
  if (existsSync(mark) && statSync(mark).mtimeMs > changed) return;
  step("build", "npx", ["next", "build"], { NEXT_TELEMETRY_DISABLED: "1" });
}

export const commit = () => {
  try {
    return execFileSync("git", ["rev-parse", "--short", "HEAD"], {
      cwd: root,
      encoding: "utf8",
    }).trim();
  } catch {
    return "no commit";
  }
};

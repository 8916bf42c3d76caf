import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statfsSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Database from "better-sqlite3";
import { eventsAfter, verifyJob } from "@/server/jobs/log";
import { COOKIE, inShop, lines, makeShop, mustServe, post, run, serve, told } from "./house";

const quiet = (command: string, ...args: string[]): boolean => {
  try {
    execFileSync(command, args, { stdio: "ignore" });
    return true;
  } catch {
    return false;
  }
};

/** Pages and readings of a tablet while the disk takes nothing. */
async function reads(url: string, job: string): Promise<number[]> {
  const ask = (at: string): Promise<number> =>
    fetch(`${url}${at}`, { headers: COOKIE, redirect: "manual" }).then((r) => r.status);
  const stranger = await fetch(`${url}/sign-in`).then((r) => r.status);
  return [
    await ask("/"),
    await ask(`/api/jobs/${job}/events?after=0`),
    await ask(`/jobs/${job}/set-out`),
    await ask("/api/jobs"),
    stranger,
  ];
}

/**
 * A disk that is full, then one that may not be written: reading goes on, writing says so, and
 * nothing is lost.
 */
export async function disks(): Promise<void> {
  const mount = mkdtempSync(path.join(tmpdir(), "iridel-disk-"));
  if (!quiet("mount", "-t", "tmpfs", "-o", "size=12m", "tmpfs", mount))
    return console.log(
      "  --   full and read-only disk: skipped, this machine lets nobody mount a small disk",
    );
  try {
    const file = path.join(mount, "shop.sqlite");
    const job = await makeShop(file);
    const server = await mustServe(file);
    let seen = (await post(server.url, job, 1, lines(3))).head;
    const copy = path.join(mount, "copies", "copy.sqlite");
    const first = await run("backup", file, copy, "--keep", "3");
    const filler = path.join(mount, "filler");
    writeFileSync(
      filler,
      Buffer.alloc(Math.max(0, statfsSync(mount).bavail * statfsSync(mount).bsize - 4096)),
    );
    quiet("dd", "if=/dev/zero", `of=${path.join(mount, "rest")}`, "bs=1k", "count=13000");
    // What room the -wal file itself still has is written full first.
    let full = await post(server.url, job, seen, lines(40));
    for (let n = 0; n < 60 && full.status === 200; n++)
      full = await post(server.url, job, (seen = full.head), lines(40));
    const waiting = lines(5);
    const refused = await post(server.url, job, seen, waiting);
    const statuses = await reads(server.url, job);
    told(
      "full disk",
      refused.status === 507 && /full/.test(refused.error) && statuses.every((s) => s === 200),
      `writing answers ${refused.status} "${refused.error.slice(0, 48)}…", reading ${statuses.join(", ")}`,
    );
    const held = hash(copy);
    const second = await run("backup", file, copy, "--keep", "3");
    const left = readdirSync(path.dirname(copy)).join();
    told(
      "a copy on a full disk",
      first.status === 0 && second.status === 1 && hash(copy) === held && left === "copy.sqlite",
      `refused: ${second.said.trim().split("\n").at(-1)!.slice(0, 60)}; the earlier copy is as it was, beside it ${left}`,
    );
    rmSync(filler);
    rmSync(path.join(mount, "rest"), { force: true });
    const after = await post(server.url, job, seen, waiting);
    told(
      "room again",
      after.status === 200 && after.kept.length === 5,
      `${after.kept.length} of 5 waiting lines taken`,
    );

    await server.stop();
    quiet("mount", "-o", "remount,ro", mount);
    const shut = await serve(file);
    if ("ended" in shut) told("read-only disk", false, `does not start: ${shut.said.slice(-300)}`);
    else {
      const no = await post(shut.url, job, after.head, lines(2));
      const still = await reads(shut.url, job);
      told(
        "read-only disk",
        no.status === 507 && still.every((s) => s === 200),
        `writing answers ${no.status} "${no.error.slice(0, 40)}…", reading ${still.join(", ")}`,
      );
      await shut.stop();
    }
    quiet("mount", "-o", "remount,rw", mount);
    const chain = await inShop(file, () => verifyJob(job));
    told(
      "the log after that",
      chain.ok,
      `${chain.lines} lines ${chain.ok ? "unbroken" : "BROKEN"}`,
    );
  } finally {
    quiet("umount", "-l", mount);
    rmSync(mount, { recursive: true, force: true });
  }
}

const hash = (file: string): string =>
  createHash("sha256").update(readFileSync(file)).digest("hex");

/**
 * Files that are no shop of this program: refused at start, with what to do, and not written to.
 */
export async function files(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "iridel-files-"));
  const good = path.join(folder, "good.sqlite");
  const job = await makeShop(good);
  await inShop(good, () => eventsAfter(job));
  const cases: [string, RegExp, (file: string) => void][] = [
    ["an empty file", /is empty/, (f) => writeFileSync(f, "")],
    [
      "a text file",
      /no database/,
      (f) => writeFileSync(f, "not a shop at all, only words\n".repeat(40)),
    ],
    [
      "a newer program's",
      /newer Iridel/,
      (f) => {
        copyFileSync(good, f);
        const db = new Database(f);
        db.prepare(
          "UPDATE __drizzle_migrations SET created_at = 32503680000000 WHERE created_at = (SELECT max(created_at) FROM __drizzle_migrations)",
        ).run();
        db.pragma("journal_mode = DELETE");
        db.close();
      },
    ],
    [
      "a damaged one",
      /damaged|cannot be read|malformed/,
      (f) => {
        copyFileSync(good, f);
        const bytes = readFileSync(f);
        bytes.fill(0x5a, 8192, 60_000);
        writeFileSync(f, bytes);
      },
    ],
    [
      "one cut off in the middle",
      /damaged|cannot be read|malformed/,
      (f) => {
        copyFileSync(good, f);
        truncateSync(f, Math.floor(readFileSync(f).length / 2));
      },
    ],
    [
      "another program's database",
      /not a shop/,
      (f) => {
        const db = new Database(f);
        db.exec("CREATE TABLE recipes (id INTEGER)");
        db.close();
      },
    ],
  ];
  for (const [what, words, make] of cases) {
    const file = path.join(folder, `${what.replaceAll(" ", "-")}.sqlite`);
    mkdirSync(path.dirname(file), { recursive: true });
    make(file);
    const before = hash(file);
    const server = await serve(file);
    const ended = "ended" in server;
    if (!ended) await server.kill();
    const untouched = hash(file) === before;
    told(
      `${what} at start`,
      ended && words.test(server.said) && untouched,
      ended ? `refused, ${untouched ? "untouched" : "WRITTEN TO"}` : "started",
    );
  }
  rmSync(folder, { recursive: true, force: true });
}

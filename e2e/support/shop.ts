import { execFileSync, spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";

/**
 * A shop of its own for one test file: a fresh made-up database and the production server on a free
 * port.
 */
export type Shop = {
  url: string;
  /** The database itself. */
  file: string;
  /** The server dies at once, as in a power cut. */
  kill: () => Promise<void>;
  start: () => Promise<void>;
  /** The shop's clock goes on from this time; only where it was opened `at` one. */
  setClock: (iso: string) => void;
  close: () => Promise<void>;
};

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === "object" && address ? address.port : 0));
    });
  });

/** @param baySeed every job taken in lives in the same simulated bay @param jobs whether the demo's jobs are made
 * @param empty nothing is in it, not even people @param at the time the shop's own clock begins at */
export async function openShop({
  baySeed = "",
  jobs = false,
  empty = false,
  at = null,
}: {
  baySeed?: string;
  jobs?: boolean;
  empty?: boolean;
  at?: string | null;
} = {}): Promise<Shop> {
  const folder = mkdtempSync(path.join(tmpdir(), "iridel-e2e-"));
  const clock = path.join(folder, "clock");
  const setClock = (iso: string): void =>
    writeFileSync(clock, String(Date.parse(iso) - Date.now()));
  if (at) setClock(at);
  const env = {
    ...process.env,
    ...(at
      ? {
          IRIDEL_TEST_CLOCK: clock,
          NODE_OPTIONS: `--import ${path.resolve("e2e/support/moved-clock.mjs")}`,
        }
      : {}),
    IRIDEL_DB: path.join(folder, "shop.sqlite"),
    IRIDEL_DEMO: "1",
    IRIDEL_BAY_SEED: baySeed,
    NODE_ENV: "production" as const,
  };
  if (!empty)
    execFileSync("npx", ["tsx", "demo/seed.ts", ...(jobs ? [] : ["--no-jobs"])], {
      env,
      stdio: "pipe",
    });
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  let server: ChildProcess | null = null;

  const start = async (): Promise<void> => {
    server = spawn(
      process.execPath,
      ["node_modules/next/dist/bin/next", "start", "-p", String(port), "-H", "127.0.0.1"],
      { env, stdio: "ignore", detached: true },
    );
    for (let n = 0; n < 150; n++) {
      if (
        await fetch(`${url}/sign-in`).then(
          (r) => r.ok,
          () => false,
        )
      )
        return;
      await new Promise((done) => setTimeout(done, 100));
    }
    throw new Error("The server did not start.");
  };
  const kill = async (): Promise<void> => {
    const dying = server;
    if (!dying?.pid || dying.exitCode !== null) return;
    const gone = new Promise((done) => dying.once("exit", done));
    // The whole group, so that no helper of the server lives on.
    process.kill(-dying.pid, "SIGKILL");
    await gone;
    server = null;
  };
  await start();
  return {
    url,
    file: env.IRIDEL_DB,
    kill,
    start,
    setClock,
    close: async () => {
      await kill();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

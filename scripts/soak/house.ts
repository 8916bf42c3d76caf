import { execFileSync, spawn, type ChildProcess } from "node:child_process";
import { createServer } from "node:net";
import { setTimeout as sleep } from "node:timers/promises";
import { nanoid } from "nanoid";
import { hashOf } from "@/server/auth/session";
import { closeDatabase, db } from "@/server/db/client";
import { people, sessions } from "@/server/db/schema";
import { takeIn } from "@/server/jobs/take-in";
import { INTAKE } from "@/tests/fixtures";

/**
 * A shop on disk, a server over it, and one signed-in tablet: what every part of the soak begins
 * with.
 */
export const TOKEN = "soak-token-of-a-tablet-that-is-signed-in";
export const COOKIE = { cookie: `iridel_session=${TOKEN}` };

/** Runs something in the shop of a file, in this process, and lets the file go again. */
export async function inShop<T>(file: string, work: () => T | Promise<T>): Promise<T> {
  closeDatabase();
  process.env.IRIDEL_DB = file;
  try {
    return await work();
  } finally {
    // A ticket that is worked out a moment later would open the file again.
    await sleep(300);
    closeDatabase();
  }
}

/** Who has taken in the jobs of a soak. */
export const lead = () =>
  db()
    .select()
    .from(people)
    .all()
    .find((p) => p.role === "lead")!;

/**
 * A made-up shop, with the demo's jobs if wanted, one job more in it, one tablet signed in.
 * @returns the job's id
 */
export function makeShop(file: string, withJobs = false): Promise<string> {
  execFileSync("npx", ["tsx", "demo/seed.ts", ...(withJobs ? [] : ["--no-jobs"])], {
    env: { ...process.env, IRIDEL_DB: file },
    stdio: "ignore",
  });
  return inShop(file, () => {
    const person = lead();
    const session = {
      tokenHash: hashOf(TOKEN),
      personId: person.id,
      createdAt: "2026-01-01T00:00:00.000Z",
      expiresAt: "2999-01-01T00:00:00.000Z",
    };
    db().insert(sessions).values(session).run();
    return takeIn(INTAKE, person);
  });
}

export const newJob = (): string => takeIn(INTAKE, lead());

export type Server = {
  url: string;
  /** As in a power cut. */
  kill: () => Promise<void>;
  /** As when it is told to stop. */
  stop: () => Promise<number>;
  pid: number;
  said: () => string;
};

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const at = probe.address();
      probe.close(() => resolve(typeof at === "object" && at ? at.port : 0));
    });
  });

/**
 * Starts the built program over a file. Null when it ends instead of answering; what it said is
 * told.
 */
export async function serve(file: string): Promise<Server | { ended: number; said: string }> {
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const env = {
    ...process.env,
    IRIDEL_DB: file,
    IRIDEL_DEMO: "1",
    NODE_ENV: "production" as const,
  };
  let said = "";
  const child: ChildProcess = spawn(
    process.execPath,
    ["node_modules/next/dist/bin/next", "start", "-p", String(port), "-H", "127.0.0.1"],
    { env, stdio: ["ignore", "pipe", "pipe"], detached: true },
  );
  for (const stream of [child.stdout!, child.stderr!])
    stream.on("data", (d) => (said += String(d)));
  let ended: number | null = null;
  const gone = new Promise<number>((done) =>
    child.once("exit", (code) => done((ended = code ?? -1))),
  );
  for (let n = 0; n < 300 && ended === null; n++) {
    if (
      await fetch(`${url}/sign-in`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return {
        url,
        pid: child.pid!,
        said: () => said,
        kill: async () => {
          process.kill(-child.pid!, "SIGKILL");
          await gone;
        },
        stop: async () => {
          process.kill(child.pid!, "SIGTERM");
          return gone;
        },
      };
    await sleep(50);
  }
  if (ended === null) process.kill(-child.pid!, "SIGKILL");
  return { ended: ended ?? -1, said };
}

export async function mustServe(file: string): Promise<Server> {
  const server = await serve(file);
  if ("ended" in server) throw new Error(`The server did not start: ${server.said}`);
  return server;
}

export type Sent = { id: string; takenAt: string; body: object };

/** Readings as a tablet writes them. */
export const lines = (n: number): Sent[] =>
  Array.from({ length: n }, () => ({
    id: nanoid(16),
    takenAt: new Date().toISOString(),
    body: {
      kind: "reading",
      slotId: "tape-fl-l",
      typed: "2871",
      shown: 2871,
      sigma: 1.7,
      instrumentId: "T-3",
    },
  }));

/** Posts lines as a tablet does. @returns status and the ids the shop said it has */
export async function post(
  url: string,
  job: string,
  seen: number,
  events: Sent[],
): Promise<{ status: number; kept: string[]; head: number; error: string }> {
  const response = await fetch(`${url}/api/jobs/${job}/events`, {
    method: "POST",
    headers: { ...COOKIE, "content-type": "application/json" },
    body: JSON.stringify({ baseSeq: seen, sentAt: new Date().toISOString(), events }),
  });
  const body = (await response.json().catch(() => ({}))) as {
    outcomes?: { id: string; outcome: string }[];
    events?: { seq: number }[];
    missing?: { seq: number }[];
    error?: string;
  };
  const kept = (body.outcomes ?? []).flatMap((o) =>
    o.outcome === "written" || o.outcome === "known" ? [o.id] : [],
  );
  return {
    status: response.status,
    kept,
    head: (body.events ?? body.missing ?? []).at(-1)?.seq ?? seen,
    error: body.error ?? "",
  };
}

/** Runs one of the project's own commands over a shop. */
export const run = (
  script: string,
  file: string,
  ...args: string[]
): Promise<{ status: number; said: string }> =>
  new Promise((done) => {
    const env = { ...process.env, IRIDEL_DB: file };
    const child = spawn("npx", ["tsx", `scripts/${script}.ts`, ...args], {
      env,
      stdio: ["ignore", "pipe", "pipe"],
    });
    let said = "";
    for (const stream of [child.stdout, child.stderr])
      stream.on("data", (d) => (said += String(d)));
    child.once("close", (code) => done({ status: code ?? -1, said }));
  });

/** One line of the outcome; a failed one makes the whole soak fail. */
export const tally = { failed: 0, passed: 0 };
export function told(what: string, ok: boolean, figures: string): void {
  if (ok) tally.passed++;
  else tally.failed++;
  console.log(`${ok ? "  ok  " : "FAILED"} ${what}: ${figures}`);
}

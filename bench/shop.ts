import { existsSync, mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { nanoid } from "nanoid";
import { madeUpVin } from "@/demo/data/vehicles";
import {
  COOKIE,
  inShop,
  lead,
  lines,
  makeShop,
  mustServe,
  newJob,
  post,
  type Server,
} from "@/scripts/soak/house";
import { upcastGround } from "@/core/job";
import { db } from "@/server/db/client";
import { jobs, jobTickets } from "@/server/db/schema";
import { changedJobs, listJobs } from "@/server/jobs/list";
import { addLine, eventsAfter } from "@/server/jobs/log";
import { searchWords } from "@/server/jobs/search-words";
import { takeIn } from "@/server/jobs/take-in";
import { INTAKE } from "@/tests/fixtures";
import { workTicket } from "@/server/jobs/tickets";

const FIRST = ["Elin", "Marek", "Zoë", "Jorun", "Ivo", "Şule", "Anneke", "Tadeo", "Nuria", "Bram"];
const LAST = [
  "Quist",
  "Harrow",
  "Vey",
  "Okonjo",
  "Lindqvist",
  "Sorrel",
  "Abara",
  "Tennant",
  "Mirza",
  "Dahl",
];
const TABLETS = 50;
/** A technician reads a tape in twenty seconds; here each tablet posts every second or so. */
const EVERY_MS = 1000;

const sorted = (values: readonly number[]): number[] => [...values].sort((a, b) => a - b);
const part = (values: readonly number[], q: number): number =>
  sorted(values)[Math.min(values.length - 1, Math.floor(q * values.length))]!;
const row = (what: string, values: readonly number[]): void =>
  console.log(
    `  ${what.padEnd(48)} ${part(values, 0.5).toFixed(1).padStart(7)} ${part(values, 0.95).toFixed(1).padStart(7)} ${Math.max(
      ...values,
    )
      .toFixed(1)
      .padStart(7)}`,
  );

/**
 * Years of work: the demo's jobs again and again, each with a log of its own, other customers and
 * VINs.
 */
export function years(count: number): void {
  const { $client } = db();
  // Made in one go, and thrown away after: nothing of it has to outlive a power cut.
  $client.pragma("synchronous = OFF");
  const models = db()
    .select()
    .from(jobs)
    .all()
    .map((job) => ({ job, log: eventsAfter(job.id), ticket: workTicket(job.id)! }));
  const person = lead();
  const from = Date.now() - count * 3_600_000;
  const words = $client.prepare("INSERT INTO job_search (jobId, words) VALUES (?, ?)");
  for (let start = 0; start < count; start += 500)
    db().transaction(() => {
      for (let n = start; n < Math.min(count, start + 500); n++) {
        const { job, log, ticket } = models[n % models.length]!;
        const [id, number] = [nanoid(12), 2000 + n];
        const at = new Date(from + n * 3_600_000).toISOString();
        const ground = structuredClone(job.ground);
        ground.intake.customer = `${FIRST[n % 10]} ${LAST[Math.floor(n / 10) % 10]}`;
        ground.intake.vin = madeUpVin(`${job.vin.slice(0, 11)}${String(n).padStart(6, "0")}`);
        db()
          .insert(jobs)
          .values({
            ...job,
            id,
            number,
            ground,
            vin: ground.intake.vin,
            createdAt: at,
            updatedAt: at,
          })
          .run();
        for (const [i, { body }] of log.entries())
          addLine(
            id,
            i + 1,
            { id: nanoid(16), at, receivedAt: at, clockBehindS: null, seen: i, body, sent: null },
            person,
          );
        words.run(id, searchWords(number, upcastGround(ground)));
        const mine = { ...ticket, id, number, customer: ground.intake.customer };
        db()
          .insert(jobTickets)
          .values({
            jobId: id,
            head: job.head,
            state: ticket.state,
            changed: n + 1000,
            ticket: mine,
          })
          .run();
      }
    });
  $client.pragma("wal_checkpoint(TRUNCATE)");
}

/** Times of one call after another, ms. */
function times(count: number, work: (n: number) => unknown): number[] {
  work(0);
  return Array.from({ length: count }, (_, n) => {
    const from = performance.now();
    work(n + 1);
    return performance.now() - from;
  });
}

async function asked(count: number, url: string): Promise<number[]> {
  const all: number[] = [];
  for (let n = 0; n < count; n++) {
    const from = performance.now();
    await fetch(url, { headers: COOKIE }).then((r) => r.text());
    all.push(performance.now() - from);
  }
  return all;
}

/** Fifty tablets post readings to jobs of their own while one looks what others wrote. */
async function tablets(
  server: Server,
  at: string[],
): Promise<{ posts: number[]; polls: number[]; refused: number }> {
  const [posts, polls]: [number[], number[]] = [[], []];
  let refused = 0;
  const until = Date.now() + 20_000;
  const tablet = async (job: string): Promise<void> => {
    let seen = 1;
    await sleep(Math.random() * EVERY_MS);
    while (Date.now() < until) {
      const from = performance.now();
      const answer = await post(server.url, job, seen, lines(1));
      posts.push(performance.now() - from);
      if (answer.status !== 200 || answer.kept.length !== 1) refused++;
      seen = answer.head;
      await sleep(EVERY_MS * (0.5 + Math.random()));
    }
  };
  const poller = async (): Promise<void> => {
    while (Date.now() < until) {
      polls.push(...(await asked(1, `${server.url}/api/jobs/${at[0]}/events?after=0`)));
      await sleep(100);
    }
  };
  await Promise.all([...at.map(tablet), poller()]);
  return { posts, polls, refused };
}

/**
 * A shop with years of jobs: list, search, take-in, and fifty tablets at once, after a new build
 * has made every ticket old.
 */
export async function shop(count: number): Promise<void> {
  if (!existsSync(".next/BUILD_ID")) return console.log("shop: not built; run npm run build first");
  const folder = mkdtempSync(path.join(tmpdir(), "iridel-years-"));
  const file = path.join(folder, "shop.sqlite");
  try {
    await makeShop(file, true);
    const at = await inShop(file, () => {
      years(count);
      const { $client } = db();
      const held = $client
        .prepare(
          "SELECT (SELECT count(*) FROM jobs) AS jobs, (SELECT count(*) FROM job_events) AS lines",
        )
        .get() as { jobs: number; lines: number };
      console.log(
        `shop of ${held.jobs} jobs, ${held.lines} lines, ${(statSync(file).size / 1e6).toFixed(0)} MB; ms`,
      );
      console.log(`  ${"".padEnd(48)}  median     p95    most`);
      row(
        "list, first page, in the server",
        times(100, () => listJobs({})),
      );
      row(
        "search: a customer's name",
        times(100, (n) => listJobs({ find: `${FIRST[n % 10]} ${LAST[n % 7]}` })),
      );
      row(
        "search: the beginning of a number",
        times(100, (n) => listJobs({ find: String(20 + (n % 180)) })),
      );
      row(
        "search: a word half the shop has",
        times(50, () => listJobs({ find: "norv" })),
      );
      row(
        "what changed since the last look",
        times(100, () => changedJobs(1000 + count)),
      );
      row(
        "take-in",
        times(60, (n) => takeIn({ ...INTAKE, customer: `Year ${n}` }, lead())),
      );
      const everyLog = times(1, () =>
        db()
          .select({ id: jobs.id })
          .from(jobs)
          .limit(100)
          .all()
          .map((j) => workTicket(j.id)),
      )[0]!;
      console.log(
        `  for comparison, every log replayed for a list: ${everyLog.toFixed(0)} ms for 100 jobs`,
      );
      // A new build: not one ticket is of the log it stands for.
      $client.exec("UPDATE job_tickets SET head = head - 1");
      return Array.from({ length: TABLETS }, newJob);
    });
    const server = await mustServe(file);
    row(
      "answer to GET /api/jobs, tickets being renewed",
      await asked(60, `${server.url}/api/jobs`),
    );
    row("answer to a search, the same", await asked(60, `${server.url}/api/jobs?find=elin`));
    const { posts, polls, refused } = await tablets(server, at);
    row(`${TABLETS} tablets posting (${posts.length} posts, ${refused} refused)`, posts);
    row("another tablet's poll meanwhile", polls);
    await server.stop();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

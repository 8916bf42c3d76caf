import { existsSync, mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { chromium } from "@playwright/test";
import { nanoid } from "nanoid";
import type { CalibrationNumbers } from "@/core/job/numbers";
import { gaussian, randomFrom } from "@/core/math/random";
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
  TOKEN,
  type Server,
} from "@/scripts/soak/house";
import { upcastGround } from "@/core/job";
import { db } from "@/server/db/client";
import { jobs, jobTickets } from "@/server/db/schema";
import { changedJobs, listJobs } from "@/server/jobs/list";
import { addLine, eventsAfter } from "@/server/jobs/log";
import { numbersPage } from "@/server/numbers/page";
import { records } from "@/server/numbers/query";
import { turnNumbers } from "@/server/numbers/turn";
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
  const addNumbers = $client.prepare(
    "INSERT INTO job_numbers (jobId, calibrationId, at, sheet, stand, instruments, boards, people, doc) VALUES (@jobId, 'one', @at, @sheet, @stand, @instruments, @boards, @people, @doc)",
  );
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
        addNumbers.run({
          jobId: id,
          at,
          ...recordOf(n, count),
        });
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

const of = <T>(list: readonly T[], random: () => number): T =>
  list[Math.floor(random() * list.length)]!;

/** What the n-th of so many years' jobs adds to the shop's numbers: always the same. */
function recordOf(n: number, count: number): Record<string, string> {
  const random = randomFrom(n + 1);
  const stand = of(["S-1", "S-2", "S-3", "S-4"], random);
  // One stand bends in the last tenth of the time.
  const bend = stand === "S-2" ? Math.max(0, n / count - 0.9) * 2 : 0;
  const attempts = random() < 0.85 ? 1 : 2;
  const doc: CalibrationNumbers = {
    calibrationId: "one",
    system: "Forward camera",
    sheet: of(["lisse-forward v2", "harrow-forward v1", "tarn-forward v3"], random),
    model: of(["Norvane Lisse", "Tesmar Harrow", "Brannoch Tarn", "Ardvale Sandling"], random),
    stand,
    fitter: of(FIRST, random),
    school: of(["tapes", "floor-box", "wheel-panels"], random),
    attempts,
    passed: random() < 0.98,
    causes: attempts > 1 ? [of(["twist", "clutter", "along", "glare", "seat"], random)] : [],
    yaw: { off: 0.1 * gaussian(random) + bend, sigma: 0.35 },
    residuals: Object.fromEntries(["T-1", "T-3", "L-1"].map((id) => [id, gaussian(random)])),
    instruments: ["T-1", "T-2", "T-3", "L-1", "V-1"].filter(() => random() < 0.6),
    boards: [of(["HQ-14", "HQ-17", "HQ-22"], random)],
    people: [of(LAST, random)],
    minutes: { "take-in": 6, ready: 14 * random() + 8, "set-out": 20 * random() + 12, run: 6 },
    declined: random() < 0.05 ? ["Customer comes back"] : [],
  };
  const bars = (list: readonly string[]): string => `|${list.join("|")}|`;
  return {
    sheet: doc.sheet,
    stand,
    instruments: bars(doc.instruments),
    boards: bars(doc.boards),
    people: bars(doc.people),
    doc: JSON.stringify(doc),
  };
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

/** From a click on a page's address to its first contentful paint, as the browser itself reports it. */
async function painted(url: string, page: string, count: number): Promise<number[]> {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
  });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await context.addCookies([{ name: "iridel_session", value: TOKEN, url }]);
    const all: number[] = [];
    for (let n = 0; n < count; n++) {
      const tab = await context.newPage();
      await tab.goto(`${url}${page}`);
      await tab.getByRole("heading", { name: "Numbers" }).waitFor();
      all.push(
        await tab.evaluate(
          () => performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? NaN,
        ),
      );
      await tab.close();
    }
    return all;
  } finally {
    await browser.close();
  }
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
        "records: words, and a tape",
        times(60, (n) =>
          records({ find: `${FIRST[n % 10]} ${LAST[n % 7]}`, instrument: "T-3" }, 100),
        ),
      );
      row(
        "records: a tape in a month",
        times(60, (n) => {
          const month = new Date(Date.now() - (n % 24) * 30 * 86_400_000).toISOString().slice(0, 7);
          return records({ instrument: "T-3", from: `${month}-01`, to: `${month}-28` }, 100);
        }),
      );
      row(
        "the shop's numbers of two years, worked out anew",
        times(10, () => {
          turnNumbers();
          return numbersPage(2, new Date());
        }),
      );
      row(
        "the same, nothing handed over since",
        times(10, () => numbersPage(2, new Date())),
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
    row("answer to GET /numbers", await asked(10, `${server.url}/numbers`));
    row("first paint of /numbers, as the browser says", await painted(server.url, "/numbers", 8));
    row("answer to a search, the same", await asked(60, `${server.url}/api/jobs?find=elin`));
    const { posts, polls, refused } = await tablets(server, at);
    row(`${TABLETS} tablets posting (${posts.length} posts, ${refused} refused)`, posts);
    row("another tablet's poll meanwhile", polls);
    await server.stop();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

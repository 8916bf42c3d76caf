import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { request } from "node:http";
import { tmpdir } from "node:os";
import path from "node:path";
import fc from "fast-check";
import sharp from "sharp";
import { eventsAfter, verifyJob } from "@/server/jobs/log";
import { makeFeedToken } from "@/server/feed/feed";
import { COOKIE, inShop, lead, makeShop, mustServe, told } from "./house";

const SEED = 20261126;
const names = fc.constantFrom(
  "toString",
  "__proto__",
  "constructor",
  "kind",
  "id",
  "body",
  "baseSeq",
  "events",
  "command",
  "type",
  "job",
  "readings",
);
const odd = fc.oneof(
  fc.constantFrom(
    null,
    "",
    "\ud800",
    "\u0000",
    "💥",
    "__proto__",
    -1,
    1e308,
    NaN,
    "9".repeat(400),
    [],
    {},
  ),
  fc.string({ unit: "binary", maxLength: 40 }),
  fc.integer(),
  fc.double(),
);
/**
 * Whole bodies of no shape at all, and bodies of the right shape with something odd in one place.
 */
const anything = fc.jsonValue({ maxDepth: 3 });
const EVENTS: object[] = [
  {
    kind: "reading",
    slotId: "tape-fl-l",
    typed: "2871",
    shown: 2871,
    sigma: 1.7,
    instrumentId: "T-3",
  },
  { kind: "strike", target: "nothing-there", reason: "gone astray" },
  { kind: "touch", touch: "hung" },
  { kind: "position", to: "first" },
  { kind: "board", code: "HQ-14", reason: null },
  { kind: "settle" },
  { kind: "check", stage: "ready", itemId: "tyres", outcome: "accepted", reason: "seen" },
  { kind: "measured", itemId: "tyres", values: { FL: 230 }, typed: { FL: "230" } },
  { kind: "put-right", itemId: "tyres" },
  { kind: "glass", part: "x", fitter: "y", partReason: null, depths: { top: 2 } },
  { kind: "walk", odometerKm: 5, odometerTyped: "5", lamps: [], settings: {} },
  { kind: "photo", photo: "a".repeat(64), subject: "dash", takenAt: null },
  { kind: "consent", name: "Elin", words: "yes", strokes: [[[1, 2]]] },
  { kind: "owed-decline", line: "a/b", reason: "no time" },
  { kind: "owed-add", system: "rear-camera", method: "static", reason: "bent" },
  { kind: "rear-toe", leftDeg: 0.1, rightDeg: 0.1, how: "printout" },
  { kind: "school", school: "tapes" },
  { kind: "pause", reason: "a part" },
  {
    kind: "move",
    move: {
      kind: "crank",
      upMm: 3,
      turns: 1,
      after: {
        pose: { xMm: 5000, yMm: 0, headingRad: 3 },
        heightMm: 1245,
        pitchRad: 0,
        rollRad: 0,
      },
    },
    rest: [],
  },
  { kind: "reopen", reason: "a slip" },
];

/** Puts something odd into one field of a body, or takes one away, or adds one. */
function spoil(body: object, at: number, key: string, value: unknown): object {
  const copy = JSON.parse(JSON.stringify(body)) as Record<string, unknown>;
  const keys = Object.keys(copy);
  const chosen = keys[at % (keys.length + 2)];
  if (chosen === undefined)
    Object.defineProperty(copy, key, { value, enumerable: true, configurable: true });
  else if (at % 7 === 0) delete copy[chosen];
  else copy[chosen] = value;
  return copy;
}
const spoiled = (bodies: readonly object[]) =>
  fc
    .tuple(fc.constantFrom(...bodies), fc.nat(), names, odd, fc.boolean())
    .map(([b, at, key, v, whole]) => (whole ? b : spoil(b, at, key, v)));

const or = (shaped: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
  fc.oneof({ arbitrary: shaped, weight: 5 }, { arbitrary: anything, weight: 1 });
/** Mostly what belongs there: a flood that is all refused at the door tries nothing behind it. */
const mostly = <T>(right: fc.Arbitrary<T>) =>
  fc.oneof({ arbitrary: right, weight: 9 }, { arbitrary: odd, weight: 1 });
const now = fc.constant(new Date().toISOString());
const sometimes = <T>(value: fc.Arbitrary<T>) =>
  fc.oneof({ arbitrary: fc.constant(undefined), weight: 12 }, { arbitrary: value, weight: 1 });
const ids = fc.oneof(
  fc.constantFrom("same-line-id", "other-line-id"),
  fc.string({ unit: fc.constantFrom(..."abcdefghij-_0123456789"), minLength: 12, maxLength: 20 }),
);

const line = fc.record({
  id: mostly(ids),
  takenAt: mostly(now),
  body: fc.oneof({ arbitrary: spoiled(EVENTS), weight: 9 }, { arbitrary: anything, weight: 1 }),
});
const batch = fc.record({
  baseSeq: mostly(fc.nat(60)),
  events: mostly(fc.array(line, { minLength: 1, maxLength: 3 })),
  sentAt: mostly(now),
  handedOn: sometimes(odd),
});
const command = (types: readonly object[]) =>
  fc.record({ after: mostly(fc.nat(50)), command: mostly(spoiled(types)) });
const RUN = [
  { type: "connect" },
  { type: "confirm", step: "x" },
  { type: "read", step: "x" },
  { type: "start", step: "learn" },
  { type: "input", step: "x", valueMm: 600 },
  { type: "stop", reason: "enough" },
];
const scan = fc.record({
  after: mostly(fc.nat(9)),
  command: mostly(fc.constantFrom("volts", "sign-in", "drop", "nonsense")),
});
const fed = fc.record({
  id: mostly(fc.nat(400).map(String)),
  slot: mostly(fc.constantFrom("tape-fl-l", "tape-fr-r", "laser-badge", "panel-rl", "toString")),
  value: mostly(fc.constantFrom("2.871 m", "2871", "5472 mm", "1,250", "2m860")),
});
const feed = fc.record({
  job: mostly(fc.constant(1041)),
  readings: mostly(fc.array(fed, { minLength: 1, maxLength: 4 })),
});

/** Memory the server's process group holds, MB. */
const memory = (pid: number): number => {
  const status = existsSync(`/proc/${pid}/status`)
    ? readFileSync(`/proc/${pid}/status`, "utf8")
    : "";
  return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024;
};

/** Sends bytes without end until the server hangs up or the size is reached. */
const flood = (url: string, megabytes: number): Promise<{ status: number; sent: number }> =>
  new Promise((done) => {
    let sent = 0;
    const req = request(url, {
      method: "POST",
      headers: { ...COOKIE, "content-type": "application/json" },
    });
    const finish = (status: number): void => {
      req.destroy();
      done({ status, sent });
    };
    req.on("response", (r) => finish(r.statusCode ?? 0));
    req.on("error", () => finish(0));
    const chunk = Buffer.alloc(1 << 20, 0x20);
    const push = (): void => {
      while (sent < megabytes && !req.destroyed) {
        sent++;
        if (!req.write(chunk)) return void req.once("drain", push);
      }
      if (!req.destroyed) req.end();
    };
    push();
  });

const tellStatuses = (of: ReadonlyMap<number, number>): string =>
  [...of]
    .sort()
    .map(([status, n]) => `${status} × ${n}`)
    .join(", ");

/**
 * A thousand bodies to each writing route, and a hundred arguments to each server action: no 500,
 * nothing half-written.
 */
export async function fuzz(bodies: number, calls: number): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "iridel-fuzz-"));
  const file = path.join(folder, "shop.sqlite");
  const job = await makeShop(file);
  const token = await inShop(file, () => makeFeedToken("G-1", lead()));
  const server = await mustServe(file);
  const before = memory(server.pid);
  const json = { ...COOKIE, "content-type": "application/json" };
  const picture = await sharp({
    create: { width: 60, height: 40, channels: 3, background: "#667" },
  })
    .jpeg()
    .toBuffer();
  const photo = fc
    .array(fc.tuple(fc.nat(picture.length - 1), fc.nat(255)), { maxLength: 6 })
    .map((changes) => {
      const bytes = Buffer.from(picture);
      for (const [at, value] of changes) bytes[at] = value;
      return bytes.subarray(0, changes.length === 3 ? bytes.length / 2 : bytes.length);
    });
  const routes: [string, fc.Arbitrary<unknown>, Record<string, string>][] = [
    [`/api/jobs/${job}/events`, or(batch), json],
    [`/api/jobs/${job}/run`, or(command(RUN)), json],
    [`/api/jobs/${job}/scan`, or(scan), json],
    ["/api/photos", or(photo), COOKIE],
    [
      "/api/feed",
      or(feed),
      { authorization: `Bearer ${token}`, "content-type": "application/json" },
    ],
  ];
  for (const [at, bodiesOf, headers] of routes) {
    const statuses = new Map<number, number>();
    let [worst, head] = ["", 1];
    const list = fc.sample(bodiesOf, { numRuns: bodies, seed: SEED });
    const ask = async (body: unknown): Promise<void> => {
      // What a tablet has seen moves on; without that every post after the first would only be told
      // what is missing.
      const base = body as { baseSeq?: unknown } | null;
      if (typeof base?.baseSeq === "number" && Number.isInteger(base.baseSeq)) base.baseSeq = head;
      const raw = Buffer.isBuffer(body);
      const bytes = raw
        ? new Uint8Array(body)
        : typeof body === "string"
          ? body
          : JSON.stringify(body);
      const answer = await fetch(server.url + at, { method: "POST", headers, body: bytes });
      statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
      if (answer.status >= 500 && answer.status !== 503)
        worst = raw ? "a picture" : String(bytes).slice(0, 300);
      const said = (await answer.json().catch(() => null)) as { events?: { seq: number }[] } | null;
      head = said?.events?.at(-1)?.seq ?? head;
    };
    // A log is written to in turn; the rest is asked by several at once.
    const abreast = at.endsWith("/events") ? 1 : 8;
    for (let i = 0; i < list.length; i += abreast)
      await Promise.all(list.slice(i, i + abreast).map(ask));
    told(
      `fuzz ${at.replace(job, "…")}`,
      worst === "",
      `${list.length} bodies: ${tellStatuses(statuses)}${worst && ` ${worst}`}`,
    );
  }
  const manifest = JSON.parse(
    readFileSync(".next/server/server-reference-manifest.json", "utf8"),
  ) as {
    node: Record<string, unknown>;
  };
  const actions = Object.keys(manifest.node);
  const args = fc.sample(fc.array(fc.oneof(odd, anything, fc.constant(job)), { maxLength: 4 }), {
    numRuns: calls,
    seed: SEED,
  });
  const answers = new Map<number, number>();
  let bad = "";
  for (const action of actions)
    for (const list of args) {
      const { status } = await fetch(`${server.url}/kit`, {
        method: "POST",
        headers: { ...COOKIE, "next-action": action, "content-type": "text/plain;charset=UTF-8" },
        body: JSON.stringify(list),
        redirect: "manual",
      });
      answers.set(status, (answers.get(status) ?? 0) + 1);
      if (status >= 500 && status !== 503) bad = `${action} ${JSON.stringify(list).slice(0, 160)}`;
    }
  told(
    "fuzz server actions",
    bad === "",
    `${actions.length} actions, ${tellStatuses(answers)}${bad && `; 500 at ${bad}`}`,
  );
  const flooded = await flood(`${server.url}/api/jobs/${job}/events`, 150);
  const picked = await flood(`${server.url}/api/photos`, 150);
  const after = memory(server.pid);
  told(
    "a body of 150 MB",
    flooded.status !== 200 && picked.status !== 200 && after - before < 400,
    `refused after ${flooded.sent} and ${picked.sent} MB; the server went from ${before.toFixed(0)} to ${after.toFixed(0)} MB in all of it`,
  );
  const alive = await fetch(`${server.url}/api/jobs/${job}/events?after=0`, { headers: COOKIE });
  await server.stop();
  const { log, chain } = await inShop(file, () => ({
    log: eventsAfter(job),
    chain: verifyJob(job),
  }));
  const whole = log.every((e, i) => e.seq === i + 1);
  told(
    "the log after that",
    chain.ok && whole && alive.status < 500,
    `${log.length} lines, ${chain.ok && whole ? "unbroken, none half-written" : "BROKEN"}`,
  );
  rmSync(folder, { recursive: true, force: true });
}

import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { eventsAfter, verifyJob } from "@/server/jobs/log";
import { inShop, lines, makeShop, mustServe, post, run, told } from "./house";

/** Copies under load, and what comes back from them. */
export async function copies(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "iridel-copies-"));
  const file = path.join(folder, "shop.sqlite");
  const copy = path.join(folder, "copies", "copy.sqlite");
  const job = await makeShop(file);
  const server = await mustServe(file);
  let [seen, going, before] = [1, true, 0];
  const load = (async () => {
    while (going) {
      const answer = await post(server.url, job, seen, lines(5));
      seen = answer.head;
    }
  })();
  const made = [];
  for (let n = 0; n < 3; n++) {
    before = seen;
    made.push(await run("backup", file, copy, "--keep", "2"));
  }
  const refused = await run("restore", file, copy);
  going = false;
  await load;
  const kept = readdirSync(path.dirname(copy)).sort();
  told(
    "copies under load",
    made.every((m) => m.status === 0) && kept.join() === "copy.sqlite,copy.sqlite.1",
    `${made.length} made, ${kept.length} kept, the newest holds at least ${before} lines`,
  );
  told(
    "restore while a server runs",
    refused.status === 1 && /Stop it/.test(refused.said),
    refused.said.trim().split("\n").at(-1)!,
  );
  // Killed, it leaves a -wal file behind: that must not be taken for the restored shop's.
  await server.kill();
  const stale = existsSync(`${file}-wal`);
  const back = await run("restore", file, copy);
  const { log, chain } = await inShop(file, () => ({
    log: eventsAfter(job).length,
    chain: verifyJob(job),
  }));
  told(
    "restore beside a stale -wal",
    stale && back.status === 0 && log >= before && chain.ok,
    `${log} lines, ${chain.ok ? "unbroken" : "BROKEN"}; ${back.said.trim().split("\n").at(-1)}`,
  );
  const again = await mustServe(file);
  const answer = await post(again.url, job, log, lines(2));
  told(
    "work goes on",
    answer.status === 200,
    `a restored shop takes ${answer.kept.length} of 2 lines`,
  );
  await again.stop();
  // A -wal file without its database, left by somebody's own copying.
  const lonely = path.join(folder, "lonely.sqlite");
  copyFileSync(copy, `${lonely}-wal`);
  const alone = await run("restore", lonely, copy);
  const same = await inShop(lonely, () => ({
    log: eventsAfter(job).length,
    chain: verifyJob(job),
  }));
  told(
    "restore where only a -wal file lies",
    alone.status === 0 && same.log === log && same.chain.ok,
    `${same.log} lines, ${same.chain.ok ? "unbroken" : "BROKEN"}`,
  );
  const spoilt = path.join(folder, "spoilt.sqlite");
  copyFileSync(copy, spoilt);
  const bytes = readFileSync(spoilt);
  bytes.fill(0, 4096 * 3, 4096 * 9);
  writeFileSync(spoilt, bytes);
  const untouched = readFileSync(file).length;
  const no = await run("restore", file, spoilt);
  told(
    "restore from a damaged copy",
    no.status === 1 && readFileSync(file).length === untouched,
    no.said.trim().split("\n").at(-1)!.slice(0, 90),
  );
  rmSync(folder, { recursive: true, force: true });
}

import { existsSync, mkdtempSync, copyFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { eventsAfter, verifyJob } from "@/server/jobs/log";
import { inShop, lines, makeShop, mustServe, post, told } from "./house";

/**
 * Kills the server in the middle of writing, again and again: what was acknowledged is there, once,
 * in an unbroken log.
 */
export async function kills(times: number): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "iridel-kills-"));
  const file = path.join(folder, "shop.sqlite");
  const job = await makeShop(file);
  const acknowledged = new Set<string>();
  let [seen, sent] = [1, 0];
  for (let n = 0; n < times; n++) {
    const server = await mustServe(file);
    const until = Date.now() + 40 + Math.random() * 400;
    let dying: Promise<void> | null = null;
    const timer = setTimeout(() => (dying = server.kill()), until - Date.now());
    let batch = lines(1 + Math.floor(Math.random() * 8));
    while (!dying) {
      const answer = await post(server.url, job, seen, batch).catch(() => null);
      if (!answer) break;
      // What was sent and not answered before the last kill is sent again: it may be there already.
      for (const id of answer.kept) acknowledged.add(id);
      if (answer.status === 200) {
        sent += batch.length;
        batch = lines(1 + Math.floor(Math.random() * 8));
      }
      seen = answer.head;
    }
    clearTimeout(timer);
    await (dying ?? server.kill());
  }
  const { log, chain } = await inShop(file, () => ({
    log: eventsAfter(job),
    chain: verifyJob(job),
  }));
  const ids = log.map((e) => e.id);
  const lost = [...acknowledged].filter((id) => !ids.includes(id));
  told(
    `${times} kills under writing`,
    lost.length === 0 && new Set(ids).size === ids.length && chain.ok,
    `${sent} lines acknowledged, ${lost.length} lost, ${ids.length - new Set(ids).size} twice, log of ${log.length} ${chain.ok ? "unbroken" : "BROKEN"}`,
  );

  // Told to stop, the server leaves nothing in the -wal file: the one file is the whole shop.
  const server = await mustServe(file);
  const batch = lines(40);
  const answers: Awaited<ReturnType<typeof post>>[] = [];
  for (let i = 0; i < 3; i++)
    answers.push(
      await post(server.url, job, (seen = answers.at(-1)?.head ?? log.length), lines(40)),
    );
  answers.push(await post(server.url, job, answers.at(-1)!.head, batch));
  await server.stop();
  const alone = path.join(folder, "alone.sqlite");
  copyFileSync(file, alone);
  const count = await inShop(alone, () => eventsAfter(job).length);
  told(
    "SIGTERM",
    count === log.length + 160 && !existsSync(`${file}.server`),
    `${count - log.length} of 160 acknowledged lines in the database file itself`,
  );
  rmSync(folder, { recursive: true, force: true });
}

// npm run check-log: follows the chain of every job's log and of the shop's own, and names the
// first line that does not fit.
import { config } from "@/server/config";
import { db } from "@/server/db/client";
import { jobs } from "@/server/db/schema";
import { verifyJob } from "@/server/jobs/log";
import { verifyShop } from "@/server/log/shop";

let broken = 0;
let lines = 0;
const all = db().select({ id: jobs.id, number: jobs.number }).from(jobs).orderBy(jobs.number).all();
for (const [name, report] of [
  ...all.map((j) => [`job ${j.number}`, verifyJob(j.id)] as const),
  ["the shop", verifyShop()] as const,
]) {
  lines += report.lines;
  if (report.ok) continue;
  broken++;
  console.log(`${name}: broken at line ${report.seq}. ${report.problem}`);
}
console.log(
  `${all.length + 1} logs, ${lines} lines in ${config.databaseFile}: ${broken === 0 ? "all unbroken" : `${broken} broken`}.`,
);
console.log(
  "Whoever holds the database can write anew what follows the last hash that left the house: compare the heads with those on reports.",
);
process.exit(broken === 0 ? 0 : 1);

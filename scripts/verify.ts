// npm run verify -- file.zip: holds an archive of a job against its own chain, without a database,
// and names the first thing that does not fit.
import { readFileSync } from "node:fs";
import { openArchive } from "@/server/archive/form";
import { summaryOf } from "@/server/archive/summary";
import { ArchiveRefusal } from "@/server/archive/zip";

const [file] = process.argv.slice(2);
if (!file) {
  console.error("Say which file: npm run verify -- iridel-job-1041.zip");
  process.exit(2);
}
try {
  const s = summaryOf(openArchive(new Uint8Array(readFileSync(file))));
  console.log(
    `Job ${s.number}, ${s.vehicle}, VIN ${s.vin}: ${s.lines} lines, unbroken; ${s.papers} papers and ${s.photos} photos are those the log names.`,
  );
  if (s.erased > 0)
    console.log(`${s.erased} lines had a personal part that was erased on request.`);
  for (const { version, head } of s.shown) console.log(`Head on report ${version}: ${head}`);
  console.log(
    "Compare it with the report that was given away: only that says the log was not written anew.",
  );
} catch (error) {
  if (!(error instanceof ArchiveRefusal) && !(error as NodeJS.ErrnoException).code) throw error;
  console.error(`${file}: ${(error as Error).message}`);
  process.exit(1);
}

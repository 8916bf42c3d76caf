// npm run backup -- FILE [--keep N]: copies the open shop into one file, checked; older copies
// become FILE.1, FILE.2 ...
import { config } from "@/server/config";
import { backUp } from "@/server/db/backup";

const args = process.argv.slice(2);
const at = args.indexOf("--keep");
const keep = at >= 0 ? Number(args[at + 1]) : 1;
const [file] = args.filter((a, i) => !a.startsWith("--") && (at < 0 || i !== at + 1));
if (!file || !Number.isInteger(keep) || keep < 1) {
  console.error("Say where the copy goes: npm run backup -- FILE [--keep N]");
  process.exit(2);
}
try {
  const copy = await backUp(config.databaseFile, file, keep);
  console.log(
    `Copy kept: ${copy.file}, ${copy.bytes} bytes, ${copy.jobs} jobs, ${copy.lines} lines, ${copy.photos} photos.`,
  );
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}

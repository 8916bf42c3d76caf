// npm run restore -- FILE: puts a copy in the place of the shop; what was there is kept beside it.
// Stop the server first.
import { config } from "@/server/config";
import { restore } from "@/server/db/backup";
import { closeDatabase, db } from "@/server/db/client";
import { COMMAND_LINE, noteShop } from "@/server/log/shop";

const [file] = process.argv.slice(2);
if (!file) {
  console.error("Say which copy: npm run restore -- FILE");
  process.exit(2);
}
try {
  const kept = await restore(file, config.databaseFile);
  db().transaction(() => noteShop(COMMAND_LINE, { kind: "restored", from: file }));
  closeDatabase();
  console.log(`Restored from ${file}.${kept ? ` What was there is kept as ${kept}.` : ""}`);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}

import { existsSync, rmSync } from "node:fs";
import { eventsOf } from "@/core/job";
import { boardSchema } from "@/core/kit";
import { ruleBookSchema } from "@/core/owed";
import { standSchema } from "@/core/setout";
import { readSheet } from "@/core/sheet";
import { vehicleSchema } from "@/core/vehicle/schema";
import { hashPin } from "@/server/auth/pin";
import { config } from "@/server/config";
import { db } from "@/server/db/client";
import {
  boards,
  instruments,
  people,
  ruleBooks,
  settings,
  sheets,
  stands,
  vehicles,
} from "@/server/db/schema";
import { eventsAfter } from "@/server/jobs/log";
import { BOARDS, INSTRUMENTS, LAST_CHECKS, PEOPLE, STANDS } from "./data/kit";
import { makeJobs } from "./data/jobs";
import { RULES } from "./data/rules";
import { SHEETS } from "./data/sheets";
import { VEHICLES } from "./data/vehicles";

/**
 * The shop itself: people, vehicles, kit, sheets. Everything is checked by the product's own
 * schemas on the way in.
 */
async function makeShop(): Promise<void> {
  for (const { pin, ...p } of PEOPLE)
    db()
      .insert(people)
      .values({ ...p, pinHash: await hashPin(pin) })
      .run();
  db()
    .insert(settings)
    .values({ key: "demo.pins", value: Object.fromEntries(PEOPLE.map((p) => [p.id, p.pin])) })
    .run();
  db()
    .insert(ruleBooks)
    .values({
      version: 1,
      doc: ruleBookSchema.parse(RULES),
      madeAt: new Date().toISOString(),
      personId: null,
    })
    .run();
  for (const v of VEHICLES)
    db()
      .insert(vehicles)
      .values({
        id: v.id,
        version: 1,
        doc: vehicleSchema.parse({
          ...v,
          checked: { enteredBy: "Oskar Veld", checkedBy: "Mara Quill", checkedOn: "2026-09-29" },
        }),
      })
      .run();
  for (const s of STANDS)
    db()
      .insert(stands)
      .values({ id: s.id, doc: standSchema.parse(s) })
      .run();
  for (const b of BOARDS)
    db()
      .insert(boards)
      .values({ code: b.code, doc: boardSchema.parse(b) })
      .run();
  for (const i of INSTRUMENTS) {
    const { daysAgo, everyDays } = LAST_CHECKS[i.id]!;
    const checkedOn = new Date(Date.now() - daysAgo * 86_400_000).toISOString().slice(0, 10);
    db()
      .insert(instruments)
      .values({ id: i.id, doc: { ...i, checkedOn, everyDays } })
      .run();
  }
  for (const s of SHEETS) {
    const read = readSheet(s);
    if (!read.ok) throw new Error(`Sheet ${s.id}: ${read.problems.join("; ")}`);
    db().insert(sheets).values({ id: s.id, version: s.version, doc: read.sheet }).run();
  }
}

/**
 * Makes the demo shop in the database the environment names. `--fresh` starts over; otherwise an
 * existing one is kept.
 */
async function main(): Promise<void> {
  const file = config.databaseFile;
  if (process.argv.includes("--fresh"))
    for (const end of ["", "-wal", "-shm"]) rmSync(file + end, { force: true });
  if (existsSync(file))
    return console.log(`Demo shop kept: ${file} (npm run demo -- --fresh starts over)`);
  await makeShop();
  if (!process.argv.includes("--no-jobs")) {
    const made = await makeJobs(PEOPLE);
    for (const j of made)
      console.log(
        `  job ${j.number}: ${j.what}${eventsOf(eventsAfter(j.id), "settled").length > 0 ? ", board set" : ""}`,
      );
  }
  console.log(`Demo shop made: ${file}`);
}

await main();

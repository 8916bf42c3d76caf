import { existsSync, rmSync } from "node:fs";
import { FIRST_ZONE } from "@/core/units";
import { eventsOf } from "@/core/job";
import { gaussian, randomFrom } from "@/core/math/random";
import { boardSchema } from "@/core/kit";
import { toolSchema } from "@/core/kit/tool";
import { ruleBookSchema } from "@/core/owed";
import { standSchema } from "@/core/setout";
import { readSheet } from "@/core/sheet";
import { vehicleSchema } from "@/core/vehicle/schema";
import { keepBays } from "@/server/bays/store";
import { keepRoads } from "@/server/roads/store";
import type { Person } from "@/server/auth/session";
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
  scanTools,
  stands,
  vehicles,
} from "@/server/db/schema";
import { eventsAfter } from "@/server/jobs/log";
import { checkInstrument, checkStand } from "@/server/kit/store";
import { CLOCK_KEY, shopDay } from "@/server/shop/clock";
import { LETTERHEAD_KEY } from "@/server/shop/letterhead";
import { minuteOf } from "@/server/day/build";
import { keepBooking } from "@/server/day/store";
import { BAYS } from "./data/bays";
import { BOOKINGS } from "./data/bookings";
import { island, SHOP_PLACE } from "./data/island";
import { BOARDS, INSTRUMENTS, LAST_CHECKS, LETTERHEAD, PEOPLE, STANDS, toolsOn } from "./data/kit";
import { makeJobs } from "./data/jobs";
import { RULES } from "./data/rules";
import { SHEETS } from "./data/sheets";
import { VEHICLES } from "./data/vehicles";

const ago = (days: number): string => new Date(Date.now() - days * 86_400_000).toISOString();
const who = (id: (typeof PEOPLE)[number]["id"]): Person => {
  const { pin: _, ...person } = PEOPLE.find((p) => p.id === id)!;
  return person;
};

/** Something better than each kind of instrument, where that is not the scale on the wall. */
const CHECKED_AGAINST: Record<string, string> = {
  laser: "the plumb line at the pillar",
  "floor-laser": "the plumb line at the pillar",
  "wheel-laser": "the turntable",
  bubble: "itself, turned end for end",
  inclinometer: "itself, turned end for end",
  rig: "the target wall",
};

/** Something that was done in the shop, and when. */
type Done = [at: string, act: (at: string) => void];

/**
 * Four weeks of mornings: two stands checked today as well, the van stand not yet. The scale of that one
 * creeps: its checks still pass.
 */
function zeroChecks(): Done[] {
  const done: Done[] = [];
  const random = randomFrom(28);
  for (const [stand, person, last] of [
    ["S-1", "ines", 0],
    ["S-2", "oskar", 0],
    ["S-3", "oskar", 1],
    ["S-4", "oskar", 0],
  ] as const)
    for (let day = 28; day >= last; day--) {
      const creep = stand === "S-3" ? 0.035 * (28 - day) : 0;
      const { scaleOffsetMm, beamHalfMm } = STANDS.find((s) => s.id === stand)!;
      const about = (mm: number): number => Math.round(10 * (mm + 0.5 * gaussian(random))) / 10;
      const read = {
        scale: 1000,
        rule: about(1000 + scaleOffsetMm + creep),
        left: about(beamHalfMm),
        right: about(beamHalfMm),
        dot: about(0.5),
      };
      done.push([ago(day), (at) => checkStand(stand, read, who(person), at)]);
    }
  return done;
}

/** Latest hour at which the made-up day of today can still begin, minutes. */
const LATEST_MIN = 13 * 60;

/** What the shop expects: today's as much later as the day is old already, or tomorrow. */
function bookExpected(): void {
  const now = new Date().toISOString();
  const late = Math.max(
    0,
    Math.ceil((minuteOf(now) - BOOKINGS[0]!.booking.arriveMin + 15) / 15) * 15,
  );
  const over = minuteOf(now) > LATEST_MIN;
  for (const { inDays, booking } of BOOKINGS) {
    const days = inDays + (over ? 1 : 0);
    const by = inDays === 0 && !over ? late : 0;
    const { arriveMin, promiseMin } = booking;
    const moved = {
      ...booking,
      arriveMin: arriveMin + by,
      promiseMin: promiseMin === null ? null : promiseMin + by,
    };
    const day = shopDay(new Date(Date.now() + days * 86_400_000).toISOString());
    keepBooking({ id: null, day, booking: moved }, who("mara"));
  }
}

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
    .insert(settings)
    .values([
      { key: CLOCK_KEY, value: { zone: FIRST_ZONE, firstDay: 1 } },
      { key: LETTERHEAD_KEY, value: LETTERHEAD },
    ])
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
  for (const t of toolsOn(shopDay()))
    db()
      .insert(scanTools)
      .values({ id: t.id, doc: toolSchema.parse(t) })
      .run();
  const history: Done[] = [];
  keepBays(BAYS);
  bookExpected();
  keepRoads({ shop: SHOP_PLACE, ...island() });
  for (const i of INSTRUMENTS) {
    const { daysAgo, everyDays } = LAST_CHECKS[i.id]!;
    db()
      .insert(instruments)
      .values({ id: i.id, doc: { ...i, checkedOn: null, everyDays } })
      .run();
    history.push([
      ago(daysAgo),
      (at) => checkInstrument(i.id, CHECKED_AGAINST[i.kind] ?? "the wall scale", who("mara"), at),
    ]);
  }
  history.push(...zeroChecks());
  // As it was written down: one after the other.
  for (const [at, act] of history.sort(([a], [b]) => a.localeCompare(b))) act(at);
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

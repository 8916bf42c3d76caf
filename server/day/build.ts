import { desc, eq, isNull, ne, or } from "drizzle-orm";
import {
  eventsOf,
  jobClock,
  stageStates,
  type JobEvent,
  type JobGround,
  type StageId,
} from "@/core/job";
import { floorAsked } from "@/core/job/floor-asked";
import { jobOwed } from "@/core/job/owed-plan";
import { parkedOf } from "@/core/job/parked";
import { happeningName, lineName, owedFor, planOwed, type OwedPlan } from "@/core/owed";
import type { Forecast } from "@/core/drive/forecast";
import type { DriveRules } from "@/core/drive/rules";
import { suitedSpans } from "@/core/drive/suits";
import type { Sample } from "@/core/schedule/durations";
import type { DayRules } from "@/core/schedule/rules";
import { leftOff, type Card, type ShopDay } from "@/core/schedule/shop";
import { standsFor } from "@/core/setout";
import type { RoomAsk } from "@/core/space/room";
import type { Vehicle } from "@/core/vehicle";
import { shopBays } from "../bays/store";
import { db } from "../db/client";
import { jobTickets, jobs } from "../db/schema";
import { eventsAfter } from "../jobs/log";
import { findJob } from "../jobs/store";
import { everybody } from "../people/store";
import { shopWeather } from "../roads/shop-weather";
import { shopRoads } from "../roads/store";
import { shopDay, shopTimes } from "../shop/clock";
import { listTools } from "../kit/store";
import { listVehicles, ruleBook } from "../shop/store";
import { kitFor, kitNames, sheetOf, shopKit, type ShopKit } from "./kit-needs";
import { plainly } from "@/core/book";
import { bookingSchema } from "@/core/schedule/booking";
import { bookingsOn, dayRules, DayRefusal, pinsOn, told, type BookingRow } from "./store";

/** Open jobs that are looked at for a day, the newest first. */
const MOST_OPEN = 60;
/** Jobs given back that durations are learned from. */
const MOST_PAST = 80;

/** Minutes since midnight at the shop. */
export function minuteOf(iso: string): number {
  const [h, m] = shopTimes().clockTime(iso).split(":").map(Number) as [number, number];
  return 60 * h + m;
}

const DAY_MS = 86_400_000;
/** A time as minutes of a day; what lies on a later day is as many days more. */
function minuteOn(day: string, iso: string): number {
  const days = Math.round((Date.parse(shopDay(iso)) - Date.parse(day)) / DAY_MS);
  return days * 1440 + minuteOf(iso);
}

/** What the calibrations of a plan in a bay need about the vehicle. */
const asksOf = (plan: OwedPlan, floor: RoomAsk["floor"]): RoomAsk[] =>
  plan.steps.flatMap(({ line, effort }) =>
    effort && line.kind === "static"
      ? [{ name: lineName(line).toLowerCase(), system: line.system, room: effort.roomM, floor }]
      : [],
  );

const bayOf = (plan: OwedPlan, things: string[][], method: string): Card["bay"] =>
  plan.bayMinutes > 0 ? { minutes: plan.bayMinutes, things, method } : null;
/** The hours that suit a drive by its sheet, as minutes of a day. */
type Suits = (drive: DriveRules | undefined) => [number, number][] | null;

const roadOf = (
  plan: OwedPlan,
  things: string[][],
  method: string,
  windows: [number, number][] | null,
): Card["road"] =>
  plan.roadMinutes > 0 ? { minutes: plan.roadMinutes, things, method, windows } : null;

/** When drives suit on a day, by the light and the weather as they are known. */
function suitsOn(day: string, forecast: Forecast | null): Suits {
  const place = shopRoads()?.shop;
  const fromMs = utcOf(day, 0);
  return (drive) => {
    if (!drive || !place) return null;
    const [lon, lat] = place;
    return suitedSpans(drive, forecast, [lat, lon], [fromMs, fromMs + DAY_MS]).map(
      ([a, b]): [number, number] => [(a - fromMs) / 60_000, (b - fromMs) / 60_000],
    );
  };
}

/** What is known of the weather of a day; null where nobody knows it. */
export async function weatherOn(day: string): Promise<Forecast | null> {
  const heard = await shopWeather.of(Math.max(Date.now(), utcOf(day, 0)), 27);
  return heard?.forecast ?? null;
}

/** UTC of a minute of a day at the shop, milliseconds since 1970. */
export function utcOf(day: string, minute: number): number {
  // The zone's hours at noon would be wrong for an hour of two nights a year; nobody works in them.
  const noon = `${day}T12:00:00.000Z`;
  return Date.parse(`${day}T00:00:00.000Z`) + (minute - 60 * shopTimes().zoneHours(noon)) * 60_000;
}

const BAY_STAGES = ["ready", "set-out", "run"] as const;

/** When the lines of some stages began and were last written, and by whom. */
function spanOf(
  events: readonly JobEvent[],
  of: "bay" | "road",
): { first: JobEvent; last: JobEvent } | null {
  const own = events.filter(({ body }) =>
    of === "road"
      ? body.kind.startsWith("drive-")
      : (body.kind === "measured" && body.stage !== "prove") ||
        body.kind === "reading" ||
        body.kind === "move" ||
        body.kind === "run" ||
        (body.kind === "check" && body.stage === "ready"),
  );
  const [first, last] = [own[0], own.at(-1)];
  return first && last ? { first, last } : null;
}

/** Minutes a job has spent in some stages already. */
function spentIn(events: readonly JobEvent[], ids: readonly StageId[]): number {
  const { stages } = jobClock(events, events.at(-1)!.at);
  return ids.reduce((s, id) => s + (stages[id] ?? 0), 0) / 60;
}

/**
 * Where a vehicle was said to stand, as long as something was written of it that day: one that nobody has
 * come to since may have been driven out.
 */
function standsIn(events: readonly JobEvent[], day: string): Card["standsIn"] {
  const parked = parkedOf(events);
  if (!parked || !events.some((e) => shopDay(e.at) === day)) return null;
  return { bay: parked.body.bay, sinceMin: minuteOn(day, parked.at) };
}

/** The shop's scan tools that were plugged into a job, by their serial numbers. */
function toolsUsed(events: readonly JobEvent[]): string[] {
  const serials = new Set(
    events.flatMap(({ body }) =>
      body.kind === "run" && body.event.type === "connected" ? [body.event.tool.serial] : [],
    ),
  );
  return listTools().flatMap((t) => (serials.has(t.serial) ? [t.id] : []));
}

function jobCard(
  row: { id: string; number: number; ground: JobGround },
  events: readonly JobEvent[],
  shop: ShopKit,
  pins: Card["pins"],
  rules: DayRules,
  suits: Suits,
): Card | null {
  const { day } = shop;
  const { intake, vehicle } = row.ground;
  const { plan } = jobOwed(row.ground, events);
  if (!plan) return null;
  const taken = eventsOf(events, "taken-in")[0]!;
  const method = row.ground.calibrations[0]?.sheet.method ?? "static";
  const stages = stageStates(events, row.ground);
  const settled = (ids: readonly string[]): boolean =>
    stages.every((s) => !ids.includes(s.id) || s.state === "settled" || s.state === "none");
  const drive = row.ground.calibrations.find((c) => c.sheet.drive)?.sheet.drive;
  const held = [
    ...new Set(
      row.ground.calibrations.flatMap(({ sheet, stand }) =>
        standsFor(sheet, [stand]) === null ? [] : [stand.id],
      ),
    ),
  ];
  const kit = kitFor(shop, vehicle, plan, held);
  const [bay, road] = [bayOf(plan, kit.bay, method), roadOf(plan, kit.road, method, suits(drive))];
  const spans = { bay: spanOf(events, "bay"), road: spanOf(events, "road") };
  const over: Card["over"] = {};
  let begun: Card["begun"] = null;
  const today = day === shopDay();
  for (const part of ["bay", "road"] as const) {
    const span = spans[part];
    if (!span || !(part === "bay" ? bay : road)) continue;
    if (settled(part === "bay" ? BAY_STAGES : ["drive"])) over[part] = minuteOn(day, span.last.at);
    else if (today) {
      // What was begun on another day and not touched today is to be taken up again, by whoever is free.
      const since = spanOf(
        events.filter((e) => shopDay(e.at) === day),
        part,
      );
      if (since)
        begun = {
          part,
          startMin: minuteOn(day, since.first.at),
          lastMin: minuteOn(day, since.last.at),
          by: since.last.by.id,
          bay: part === "bay" ? (parkedOf(events)?.body.bay ?? null) : null,
          things: toolsUsed(events),
        };
    }
  }
  const arriveMin = Math.max(0, minuteOn(day, taken.at));
  const glass = intake.happenings.some((h) => h.event === "glass-out");
  return {
    id: `job:${row.id}`,
    kind: "job",
    title: `${vehicle.make} ${vehicle.model}`,
    customer: intake.customer,
    plate: intake.plate,
    done: intake.happenings.map(happeningName).join(", "),
    happenings: intake.happenings,
    said: {},
    arriveMin,
    promiseMin: intake.promisedAt ? minuteOn(day, intake.promisedAt) : null,
    place: "shop",
    vehicle,
    asks: asksOf(plan, floorAsked(row.ground)),
    // Here glass is set before a vehicle is taken in.
    glass: false,
    curedMin: glass ? arriveMin + rules.cureMin : null,
    bay,
    road,
    standsIn: over.bay === undefined && today ? standsIn(events, day) : null,
    spentMin: { bay: spentIn(events, BAY_STAGES), road: spentIn(events, ["drive"]) },
    over,
    begun,
    pins,
  };
}

function bookingCard(
  { id, doc }: BookingRow,
  shop: ShopKit,
  pins: Card["pins"],
  suits: Suits,
): Card | null {
  const vehicle = listVehicles().find((v) => v.id === doc.vehicleId);
  if (!vehicle) return null;
  const book = ruleBook();
  const plan = planOwed(owedFor(doc.happenings, vehicle.fitted, book.rules), book);
  const kit = kitFor(shop, vehicle, plan);
  return {
    id: `booking:${id}`,
    kind: "booking",
    title: `${vehicle.make} ${vehicle.model}`,
    customer: doc.customer,
    plate: doc.plate,
    done: doc.happenings.map(happeningName).join(", "),
    happenings: doc.happenings,
    said: doc.said,
    arriveMin: doc.arriveMin,
    promiseMin: doc.promiseMin,
    place: doc.place,
    vehicle,
    asks: asksOf(plan, null),
    glass: doc.happenings.some((h) => h.event === "glass-out"),
    curedMin: null,
    bay: bayOf(plan, kit.bay, "static"),
    road: roadOf(plan, kit.road, "dynamic", suits(driveOf(shop, vehicle, plan))),
    standsIn: null,
    spentMin: {},
    over: {},
    begun: null,
    pins,
  };
}

/** What the drive that is owed asks, by the sheet it would be done by. */
const driveOf = (shop: ShopKit, vehicle: Vehicle, { steps }: OwedPlan): DriveRules | undefined =>
  steps
    .filter(({ line }) => line.kind === "dynamic")
    .map(({ line }) => sheetOf(shop, vehicle, line)?.drive)
    .find((drive) => drive !== undefined);

/** Samples of jobs that were given back, by job and head of its log: they do not change again. */
const learned = new Map<string, Sample[]>();

function samplesOf(jobId: string, head: number, rules: DayRules): Sample[] {
  const key = `${jobId}/${head}/${rules.proveMin}`;
  const known = learned.get(key);
  if (known) return known;
  const row = findJob(jobId);
  if (!row) return [];
  const events = eventsAfter(jobId);
  const { plan } = jobOwed(row.ground, events);
  const { stages } = jobClock(events, row.updatedAt);
  const method = row.ground.calibrations[0]?.sheet.method ?? "static";
  const minutes = (...ids: (keyof typeof stages)[]): number =>
    ids.reduce((s, id) => s + (stages[id] ?? 0), 0) / 60;
  const person = spanOf(events, "bay")?.last.by.id ?? events.at(-1)!.by.id;
  const samples: Sample[] = [
    { part: "bay", method, plannedMin: plan?.bayMinutes ?? 0, tookMin: minutes(...BAY_STAGES) },
    { part: "road", method, plannedMin: plan?.roadMinutes ?? 0, tookMin: minutes("drive") },
    {
      part: "desk",
      method: "prove",
      plannedMin: rules.proveMin,
      tookMin: minutes("prove", "hand-over"),
    },
  ]
    .filter((s) => s.plannedMin > 0 && s.tookMin > 0)
    .map((s) => ({ ...s, part: s.part as Sample["part"], person }));
  learned.set(key, samples);
  return samples;
}

/** Who works in the shop. */
export const workers = (): { id: string; name: string }[] =>
  everybody()
    .filter((p) => p.retiredAt === null && p.role !== "viewer")
    .map(({ id, name }) => ({ id, name }));

/** All that a day of the shop is planned from. */
export function shopDayOf(
  day: string,
  forecast: Forecast | null = null,
  now = new Date().toISOString(),
): ShopDay {
  const rules = dayRules();
  const kit = shopKit(day);
  const suits = suitsOn(day, forecast);
  const pins = pinsOn(day);
  const open = db()
    .select({ id: jobs.id })
    .from(jobs)
    .leftJoin(jobTickets, eq(jobTickets.jobId, jobs.id))
    .where(or(isNull(jobTickets.state), ne(jobTickets.state, "handed-over")))
    .orderBy(desc(jobs.updatedAt))
    .limit(MOST_OPEN)
    .all();
  const today = shopDay(now);
  const jobCards = open.flatMap(({ id }): Card[] => {
    const row = findJob(id)!;
    const events = eventsAfter(id);
    const promised = row.ground.intake.promisedAt;
    // On another day only what was promised for it is sure to be there.
    if (day !== today && (!promised || shopDay(promised) !== day)) return [];
    const card = jobCard(row, events, kit, pins.get(`job:${id}`) ?? {}, rules, suits);
    return card ? [card] : [];
  });
  const past = db()
    .select({ id: jobs.id, head: jobs.head })
    .from(jobs)
    .innerJoin(jobTickets, eq(jobTickets.jobId, jobs.id))
    .where(eq(jobTickets.state, "handed-over"))
    .orderBy(desc(jobs.updatedAt))
    .limit(MOST_PAST)
    .all();
  return {
    day,
    nowMin: day === today ? minuteOf(now) : 0,
    rules,
    people: workers(),
    bays: shopBays().map(({ id, name }) => ({ id, name })),
    kit: kitNames(kit),
    cards: [
      ...leftOff(jobCards),
      ...bookingsOn(day).flatMap(
        (b) => bookingCard(b, kit, pins.get(`booking:${b.id}`) ?? {}, suits) ?? [],
      ),
    ],
    samples: past.flatMap((p) => samplesOf(p.id, p.head, rules)),
  };
}

/** What a vehicle would be as a card of a day, before it is booked or taken in. @throws DayRefusal */
export function draftCard(json: unknown): Card {
  const read = bookingSchema.safeParse(json, plainly);
  if (!read.success) throw new DayRefusal(told(read.error));
  const draft = { id: "draft", day: shopDay(), doc: read.data, jobId: null };
  const card = bookingCard(draft, shopKit(draft.day), {}, () => null);
  if (!card) throw new DayRefusal("vehicle: the shop’s book has no such vehicle.");
  return card;
}

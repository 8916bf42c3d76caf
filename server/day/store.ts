import { and, eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import { z } from "zod";
import { plainly, problemsIn } from "@/core/book";
import { bookingSchema, type Booking } from "@/core/schedule/booking";
import { dayRulesSchema, USUAL_DAY, type DayRules } from "@/core/schedule/rules";
import { PARTS, type Card, type Part } from "@/core/schedule/shop";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { bookings, dayPins, settings } from "../db/schema";
import { noteShop } from "../log/shop";

/** The plan of a day cannot be changed as it was asked. The message names the field and the remedy. */
export class DayRefusal extends Refusal {
  override readonly name = "DayRefusal";
}

const RULES_KEY = "day.rules";
const isoDay = z.iso.date("must be a day");

/** What the fields are called where people fill them in. */
const FIELDS: Record<string, string> = {
  vehicleId: "vehicle",
  happenings: "what is to be done",
  place: "where",
  arriveMin: "arrives",
  promiseMin: "promised for",
  fromMin: "open from",
  toMin: "open to",
  rest: "rest",
  glassMin: "to set a glass",
  cureMin: "until its adhesive lets it be driven",
  proveMin: "to prove and give back",
  travelMin: "to a customer",
  moveMin: "to stand a vehicle elsewhere",
  people: "people",
};

/** What is wrong, field by field, each by the name it has on the screen. */
export const told = (error: z.ZodError): string =>
  problemsIn(error, "day")
    .map(({ field, message }) => {
      const [first = "", ...rest] = field.replace(/^booking\./, "").split(".");
      return `${[FIELDS[first] ?? first, ...rest].join(" ")}: ${message}`;
    })
    .join("\n");

/** How the shop's days go; as most shops' do where it has not said so. */
export function dayRules(): DayRules {
  const row = db().select().from(settings).where(eq(settings.key, RULES_KEY)).get();
  return row ? dayRulesSchema.parse(row.value) : USUAL_DAY;
}

/** Keeps how the shop's days go. @throws DayRefusal */
export function keepDayRules(json: unknown, person: Person): DayRules {
  const read = dayRulesSchema.safeParse(json, plainly);
  if (!read.success) throw new DayRefusal(told(read.error));
  db().transaction(() => {
    db()
      .insert(settings)
      .values({ key: RULES_KEY, value: read.data })
      .onConflictDoUpdate({ target: settings.key, set: { value: read.data } })
      .run();
    noteShop(person, { kind: "kit", item: "day", what: "hours and usual minutes" });
  });
  return read.data;
}

export type BookingRow = { id: string; day: string; doc: Booking; jobId: string | null };

/** What is expected on a day and not taken in yet. */
export const bookingsOn = (day: string): BookingRow[] =>
  db()
    .select({ id: bookings.id, day: bookings.day, doc: bookings.doc, jobId: bookings.jobId })
    .from(bookings)
    .where(eq(bookings.day, day))
    .all()
    .filter((b) => b.jobId === null);

export const findBooking = (id: string): BookingRow | null =>
  db()
    .select({ id: bookings.id, day: bookings.day, doc: bookings.doc, jobId: bookings.jobId })
    .from(bookings)
    .where(eq(bookings.id, id))
    .get() ?? null;

const askSchema = z.object({
  id: z.string().max(40).nullable(),
  day: isoDay,
  booking: bookingSchema,
});

/** Books a vehicle, or changes what was booked. @returns its id @throws DayRefusal naming the field */
export function keepBooking(json: unknown, person: Person): string {
  const read = askSchema.safeParse(json, plainly);
  if (!read.success) throw new DayRefusal(told(read.error));
  const { id, day, booking } = read.data;
  if (id === null) {
    const fresh = nanoid(12);
    db().insert(bookings).values({ id: fresh, day, doc: booking, personId: person.id }).run();
    return fresh;
  }
  const had = findBooking(id);
  if (!had || had.jobId !== null)
    throw new DayRefusal("This booking is taken in or taken out already. Look at the day again.");
  db().update(bookings).set({ day, doc: booking }).where(eq(bookings.id, id)).run();
  return id;
}

export const saidSchema = z.object({
  id: z.string().max(40),
  said: z.record(z.string().max(40), z.string().trim().max(200)),
});

/** What its keeper has said of a vehicle that is expected, one answer after another. */
export function keepSaid(id: string, said: Record<string, string>): void {
  db().transaction(() => {
    const had = findBooking(id);
    if (!had || had.jobId !== null)
      throw new DayRefusal("This vehicle is here already, or is not expected any more.");
    const doc = bookingSchema.parse({ ...had.doc, said: { ...had.doc.said, ...said } });
    db().update(bookings).set({ doc }).where(eq(bookings.id, id)).run();
  });
}

/** Takes a booking out. @throws DayRefusal where it is gone already */
export function dropBooking(id: string): void {
  const { changes } = db().delete(bookings).where(eq(bookings.id, id)).run();
  if (changes === 0) throw new DayRefusal("This booking is gone already. Look at the day again.");
}

/** A booking has become a job. */
export const bookingTakenIn = (id: string, jobId: string): void =>
  void db().update(bookings).set({ jobId }).where(eq(bookings.id, id)).run();

const pinSchema = z.object({
  day: isoDay,
  card: z.string().min(1).max(80),
  part: z.enum(PARTS),
  pin: z
    .object({
      startMin: z.number().int().min(0).max(1440).optional(),
      bay: z.string().max(40).optional(),
      person: z.string().max(80).optional(),
    })
    .nullable(),
});

export function pinsOn(day: string): Map<string, Card["pins"]> {
  const rows = db().select().from(dayPins).where(eq(dayPins.day, day)).all();
  return new Map(rows.map((r) => [r.card, r.pins]));
}

/** Sets a part of a card where somebody wants it, or lets it go again with null. @throws DayRefusal */
export function keepPin(json: unknown): void {
  const read = pinSchema.safeParse(json, plainly);
  if (!read.success) throw new DayRefusal(told(read.error));
  const { day, card, part, pin } = read.data;
  db().transaction(() => {
    const had = pinsOn(day).get(card) ?? {};
    const { [part]: _, ...rest }: Partial<Record<Part, unknown>> & Card["pins"] = had;
    const pins: Card["pins"] = pin ? { ...had, [part]: pin } : rest;
    if (Object.keys(pins).length === 0)
      db()
        .delete(dayPins)
        .where(and(eq(dayPins.day, day), eq(dayPins.card, card)))
        .run();
    else
      db()
        .insert(dayPins)
        .values({ day, card, pins })
        .onConflictDoUpdate({ target: [dayPins.day, dayPins.card], set: { pins } })
        .run();
  });
}

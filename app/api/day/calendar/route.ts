import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import {
  calendarKey,
  calendarText,
  isCalendarKey,
  newCalendarKey,
  subscribedText,
} from "@/server/day/calendar";
import { route } from "@/server/http/route";
import { shopDay } from "@/server/shop/clock";

const ics = (text: string, name: string): Response =>
  new Response(text, {
    headers: {
      "content-type": "text/calendar; charset=utf-8",
      "content-disposition": `attachment; filename="${name}.ics"`,
      "cache-control": "private, max-age=300",
    },
  });

/**
 * The plan as a calendar: the next days for a calendar program that has the shop's key, one day for
 * whoever is signed in.
 */
export const GET = route(async (request: Request) => {
  const asked = new URL(request.url).searchParams;
  const key = asked.get("key");
  if (key !== null)
    return isCalendarKey(key)
      ? ics(await subscribedText(asked.get("person")), "iridel")
      : problem(
          403,
          "key: this calendar's key is not good any more. Ask the shop for the new one.",
        );
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const day = asked.get("day") ?? shopDay();
  if (!/^\d{4}-\d\d-\d\d$/.test(day)) return problem(400, "day: write it as year-month-day.");
  return ics(await calendarText(day, 1, asked.get("person")), `day-${day}`);
});

/** The key of the shop's calendar; a new one where `anew` is asked for. */
export const POST = route(async (request: Request) => {
  const anew = new URL(request.url).searchParams.has("anew");
  const who = await allow(anew ? RIGHTS["write-rules"] : RIGHTS["take-in"]);
  if ("refusal" in who) return who.refusal;
  return Response.json({ key: anew ? newCalendarKey() : calendarKey() });
});

import { z } from "zod";
import { allow, problem } from "@/server/auth/guard";
import { shopBays } from "@/server/bays/store";
import { shopDayOf, weatherOn } from "@/server/day/build";
import { remindersFor } from "@/server/day/reminders";
import { route } from "@/server/http/route";
import { shopDay } from "@/server/shop/clock";

/** All that a day of the shop is planned from, and its bays as they are drawn. */
export const GET = route(async (request: Request) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const asked = new URL(request.url).searchParams.get("day") ?? shopDay();
  const day = z.iso.date().safeParse(asked);
  if (!day.success) return problem(400, "day: write it as year-month-day.");
  const shop = shopDayOf(day.data, await weatherOn(day.data));
  const now = new Date().toISOString();
  return Response.json({ shop, bays: shopBays(), reminders: remindersFor(shop), now });
});

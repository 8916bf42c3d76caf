import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { draftCard } from "@/server/day/build";
import { DayRefusal, dropBooking, keepBooking } from "@/server/day/store";
import { readJson, route } from "@/server/http/route";

const LIMIT = 20_000;

/** Books a vehicle, or changes what was booked; with `try` only says what it would be as a card. */
export const POST = route(async (request: Request) => {
  const who = await allow(RIGHTS["take-in"]);
  if ("refusal" in who) return who.refusal;
  try {
    const json = await readJson(request, LIMIT);
    return new URL(request.url).searchParams.has("try")
      ? Response.json({ card: draftCard(json) })
      : Response.json({ id: keepBooking(json, who.person) });
  } catch (error) {
    if (error instanceof DayRefusal) return problem(422, error.message);
    throw error;
  }
});

/** Takes the booking `id` out. */
export const DELETE = route(async (request: Request) => {
  const who = await allow(RIGHTS["take-in"]);
  if ("refusal" in who) return who.refusal;
  try {
    dropBooking(new URL(request.url).searchParams.get("id") ?? "");
    return Response.json({});
  } catch (error) {
    if (error instanceof DayRefusal) return problem(404, error.message);
    throw error;
  }
});

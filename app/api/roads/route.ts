import { allow } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { shopRoads } from "@/server/roads/store";
import { shopWeather } from "@/server/roads/shop-weather";

const HOURS = 27;
/** Nobody plans farther away from now than this, milliseconds. */
const AHEAD_MS = 3650 * 24 * 3_600_000;

/**
 * The shop's roads, and the weather of a day: what a drive is planned with. `from` is when one may first
 * leave, milliseconds since 1970; now where it is not said or out of reason.
 */
export const GET = route(async (request: Request) => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const asked = Number(new URL(request.url).searchParams.get("from"));
  const near = asked > 0 && Math.abs(asked - Date.now()) < AHEAD_MS;
  const heard = await shopWeather.of(near ? asked : Date.now(), HOURS);
  return Response.json(
    {
      roads: shopRoads(),
      forecast: heard?.forecast ?? null,
      heardAt: heard?.heardAt ?? null,
      // By the shop's own clock: a tablet's may be set otherwise.
      oldMs: heard ? Date.now() - Date.parse(heard.heardAt) : null,
    },
    { headers: { "cache-control": "private, max-age=300" } },
  );
});

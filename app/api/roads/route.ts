import { SimulatedWeather } from "@/devices/weather/simulated";
import type { WeatherService } from "@/devices/weather/weather";
import { allow } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { shopRoads } from "@/server/roads/store";

const weather: WeatherService = new SimulatedWeather("hollin-quay");
const HOURS = 27;

/** The shop's roads, and the weather of the coming day: what a drive is planned with. */
export const GET = route(async () => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const roads = shopRoads();
  const forecast = await weather.forecast(Date.now(), HOURS);
  return Response.json(
    { roads, forecast },
    { headers: { "cache-control": "private, max-age=300" } },
  );
});

import { SimulatedWeather } from "@/devices/weather/simulated";
import { ShopWeather } from "./weather";

/** The one weather of the shop: whoever asks shares what was heard last. */
export const shopWeather = new ShopWeather(
  new SimulatedWeather("hollin-quay", { refuses: 0.2, takesMs: 250 }),
);

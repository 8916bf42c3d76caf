import type { Forecast } from "@/core/drive/forecast";

/** The service does not tell this time. */
export class WeatherTrouble extends Error {
  override readonly name = "WeatherTrouble";
}

/** Whatever foretells the weather at the shop: the one interface the product knows. */
export interface WeatherService {
  /**
   * Hours that follow each other, the first of them the one that `fromMs` lies in.
   * @throws WeatherTrouble where it is busy or away
   */
  forecast(fromMs: number, hours: number): Promise<Forecast>;
}

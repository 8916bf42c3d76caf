import type { Forecast } from "@/core/drive/forecast";

/** Whatever foretells the weather at the shop: the one interface the product knows. */
export interface WeatherService {
  /** Hours that follow each other, the first of them the one that `fromMs` lies in. */
  forecast(fromMs: number, hours: number): Promise<Forecast>;
}

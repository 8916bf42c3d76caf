/** What this tablet shows: kept in a cookie, so that the server draws the first picture right. */
export type Settings = { theme: "light" | "night"; lengths: "mm" | "in" };

export const DEFAULT_SETTINGS: Settings = { theme: "light", lengths: "mm" };

export function readSettings(cookie: string | undefined): Settings {
  const [theme, lengths] = (cookie ?? "").split(".");
  return { theme: theme === "night" ? "night" : "light", lengths: lengths === "in" ? "in" : "mm" };
}

export const writeSettings = (s: Settings): string =>
  `iridel_settings=${s.theme}.${s.lengths}; path=/; max-age=31536000; samesite=lax`;

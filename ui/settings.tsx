"use client";

import { createContext, useContext, useMemo, useState, type ReactNode } from "react";
import { FIRST_ZONE, timesIn, type Times } from "@/core/units";
import { DEFAULT_SETTINGS, writeSettings, type Settings } from "./settings-cookie";

/** Where the shop's clock hangs, and the day its week begins with: 0 Sunday, 1 Monday. */
export type ShopClock = { zone: string; firstDay: number };

type Value = Settings & { clock: ShopClock; change: (patch: Partial<Settings>) => void };

const Context = createContext<Value>({
  ...DEFAULT_SETTINGS,
  clock: { zone: FIRST_ZONE, firstDay: 1 },
  change: () => {},
});

export const useSettings = (): Value => useContext(Context);
/** Times as the shop's own clock shows them. */
export const useTimes = (): Times => timesIn(useContext(Context).clock.zone);

export function SettingsProvider({
  initial,
  clock,
  children,
}: {
  initial: Settings;
  clock: ShopClock;
  children: ReactNode;
}) {
  const [settings, setSettings] = useState(initial);
  const value = useMemo<Value>(
    () => ({
      ...settings,
      clock,
      change: (patch) => {
        const next = { ...settings, ...patch };
        document.documentElement.dataset.theme = next.theme;
        document.cookie = writeSettings(next);
        setSettings(next);
      },
    }),
    [settings, clock],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

/** The half of the disc that lies in the dark. */
const HALF = { light: "M9 2a7 7 0 0 1 0 14z", night: "M9 2a7 7 0 0 0 0 14z" };

/** Night and day, millimetres and inches. */
export function Toggles() {
  const { theme, lengths, change } = useSettings();
  const button =
    "flex min-h-12 min-w-10 items-center justify-center gap-1 rounded-md px-1.5 text-sm font-semibold hover:bg-wash";
  return (
    <span className="flex">
      <button
        type="button"
        className={button}
        onClick={() => change({ lengths: lengths === "mm" ? "in" : "mm" })}
        aria-label={`Lengths in ${lengths}; change`}
      >
        {lengths}
      </button>
      <button
        type="button"
        className={button}
        onClick={() => change({ theme: theme === "light" ? "night" : "light" })}
        aria-label={theme === "light" ? "Night theme" : "Day theme"}
      >
        <svg viewBox="0 0 18 18" className="size-4.5" aria-hidden>
          <circle cx="9" cy="9" r="7" fill="none" stroke="currentColor" strokeWidth="2" />
          <path d={HALF[theme]} fill="currentColor" />
        </svg>
      </button>
    </span>
  );
}

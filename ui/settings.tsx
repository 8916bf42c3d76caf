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

"use client";

import { createContext, useContext, useMemo, useState, type ReactNode } from "react";
import { DEFAULT_SETTINGS, writeSettings, type Settings } from "./settings-cookie";

type Value = Settings & { change: (patch: Partial<Settings>) => void };

const Context = createContext<Value>({ ...DEFAULT_SETTINGS, change: () => {} });

export const useSettings = (): Value => useContext(Context);

export function SettingsProvider({
  initial,
  children,
}: {
  initial: Settings;
  children: ReactNode;
}) {
  const [settings, setSettings] = useState(initial);
  const value = useMemo<Value>(
    () => ({
      ...settings,
      change: (patch) => {
        const next = { ...settings, ...patch };
        document.documentElement.dataset.theme = next.theme;
        document.cookie = writeSettings(next);
        setSettings(next);
      },
    }),
    [settings],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

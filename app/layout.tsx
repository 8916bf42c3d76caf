import "@fontsource/atkinson-hyperlegible-next/latin-400.css";
import "@fontsource/atkinson-hyperlegible-next/latin-600.css";
import "@fontsource/atkinson-hyperlegible-mono/latin-600.css";
import "@fontsource/noto-sans/400.css";
import "@fontsource/noto-sans/600.css";
import "@fontsource/noto-sans-hebrew/400.css";
import "@fontsource/noto-sans-arabic/400.css";
import "@fontsource/noto-sans-kr/400.css";
import "@fontsource/noto-sans-sc/400.css";
import "./globals.css";
import type { Metadata, Viewport } from "next";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { shopClock } from "@/server/shop/clock";
import { SettingsProvider } from "@/ui/settings";
import { readSettings } from "@/ui/settings-cookie";

export const metadata: Metadata = {
  title: { default: "Iridel", template: "%s · Iridel" },
  description: "Sets out, proves and records the recalibration of a vehicle's cameras.",
};

export const viewport: Viewport = { width: "device-width", initialScale: 1, themeColor: "#f5f2eb" };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const settings = readSettings((await cookies()).get("iridel_settings")?.value);
  return (
    <html lang="en" data-theme={settings.theme}>
      <body className="antialiased">
        <SettingsProvider initial={settings} clock={shopClock()}>
          {children}
        </SettingsProvider>
      </body>
    </html>
  );
}

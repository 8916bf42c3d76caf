import type { Metadata } from "next";
import { z } from "zod";
import { requirePerson } from "@/server/auth/guard";
import { shopDay } from "@/server/shop/clock";
import { WeekPage } from "@/ui/day/week";

export const metadata: Metadata = { title: "Week" };

export default async function Page({ searchParams }: { searchParams: Promise<{ day?: string }> }) {
  await requirePerson();
  const today = shopDay();
  const asked = z.iso.date().safeParse((await searchParams).day);
  const day = asked.success ? asked.data : today;
  return <WeekPage key={day} day={day} today={today} />;
}

import type { Metadata } from "next";
import { z } from "zod";
import { requirePerson } from "@/server/auth/guard";
import { shopDay } from "@/server/shop/clock";
import { listVehicles } from "@/server/shop/store";
import { DayPage } from "@/ui/day/day";

export const metadata: Metadata = { title: "Day" };

export default async function Page({ searchParams }: { searchParams: Promise<{ day?: string }> }) {
  const me = await requirePerson();
  const today = shopDay();
  const asked = z.iso.date().safeParse((await searchParams).day);
  const day = asked.success ? asked.data : today;
  return (
    <DayPage
      key={day}
      day={day}
      today={today}
      vehicles={listVehicles().map((v) => ({ id: v.id, name: `${v.make} ${v.model}` }))}
      writes={me.role !== "viewer"}
    />
  );
}

import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { shopDay } from "@/server/shop/clock";
import { NextJob } from "@/ui/day/next-job";

export const metadata: Metadata = { title: "My next job" };

export default async function Page() {
  const me = await requirePerson();
  return <NextJob day={shopDay()} me={{ id: me.id, name: me.name }} />;
}

import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { shopDay } from "@/server/shop/clock";
import { Wall } from "@/ui/day/wall";

export const metadata: Metadata = { title: "Wall" };

export default async function Page() {
  await requirePerson();
  return <Wall day={shopDay()} />;
}

import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { shopRoads } from "@/server/roads/store";
import { RoadsPage } from "@/ui/roads/roads";

export const metadata: Metadata = { title: "Roads" };

export default async function Page() {
  const me = await requirePerson();
  return <RoadsPage known={shopRoads()} lead={me.role === "lead"} writes={me.role !== "viewer"} />;
}

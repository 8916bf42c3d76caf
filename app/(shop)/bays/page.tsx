import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { shopBays } from "@/server/bays/store";
import { BaysPage } from "@/ui/bays/bays";

export const metadata: Metadata = { title: "Bays" };

export default async function Page() {
  const me = await requirePerson();
  return <BaysPage bays={shopBays()} lead={me.role === "lead"} writes={me.role !== "viewer"} />;
}

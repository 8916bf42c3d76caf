import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { shopBays } from "@/server/bays/store";
import { shopDay } from "@/server/shop/clock";
import { BayEditor } from "@/ui/bays/bay-editor";

export const metadata: Metadata = { title: "Bay" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const me = await requirePerson();
  const { id } = await params;
  const bay = shopBays().find((b) => b.id === id);
  if (!bay) notFound();
  return <BayEditor kept={bay} today={shopDay()} readOnly={me.role === "viewer"} />;
}

import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { z } from "zod";
import { requirePerson } from "@/server/auth/guard";
import { cardOn } from "@/server/day/paper";
import { pickedFor } from "@/server/day/kit-needs";
import { PickList, type PickItem } from "@/ui/day/pick-list";

export const metadata: Metadata = { title: "Pick list" };

const askedSchema = z.object({ day: z.iso.date(), card: z.string().max(80) });

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<Record<string, string>>;
}) {
  await requirePerson();
  const asked = askedSchema.safeParse(await searchParams);
  const card = asked.success ? cardOn(asked.data.day, asked.data.card) : null;
  if (!card || !asked.success) notFound();
  const items = pickedFor(asked.data.day, card).map((any): PickItem => ({ any }));
  return (
    <PickList
      day={asked.data.day}
      card={card.id}
      title={`${card.title}, ${card.customer}`}
      items={items}
    />
  );
}

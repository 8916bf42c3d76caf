import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { z } from "zod";
import { requirePerson } from "@/server/auth/guard";
import { cardOn } from "@/server/day/paper";
import { listBoards } from "@/server/kit/store";
import { listStands } from "@/server/shop/store";
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
  const boards = new Map(listBoards().map((b) => [b.code, b.name]));
  const [stand] = listStands();
  const items: PickItem[] = [
    ...(card.bay?.things ?? []).map((code) => ({ code, name: boards.get(code) ?? "Board" })),
    ...(card.bay && stand ? [{ code: stand.id, name: stand.name }] : []),
  ];
  return (
    <PickList
      day={asked.data.day}
      card={card.id}
      title={`${card.title}, ${card.customer}`}
      items={items}
    />
  );
}

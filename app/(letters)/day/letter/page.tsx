import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { z } from "zod";
import { requirePerson } from "@/server/auth/guard";
import { letterBefore } from "@/server/day/paper";
import { LetterPage } from "@/ui/day/letter";

export const metadata: Metadata = { title: "Before your vehicle comes" };

const askedSchema = z.object({ day: z.iso.date(), card: z.string().max(80) });

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<Record<string, string>>;
}) {
  const me = await requirePerson();
  const asked = askedSchema.safeParse(await searchParams);
  const letter = asked.success ? letterBefore(asked.data.day, asked.data.card) : null;
  if (!letter) notFound();
  return <LetterPage letter={letter} by={me.role === "viewer" ? "viewer" : "shop"} />;
}

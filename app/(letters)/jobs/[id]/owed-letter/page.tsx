import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { recordOf } from "@/server/report/record";
import { OwedLetter } from "@/ui/owed/owed-letter";

export const metadata: Metadata = { title: "Why this is owed" };

/** The page for the customer or insurer: why each calibration is owed, in plain words. Made to be printed. */
export default async function OwedLetterPage({ params }: { params: Promise<{ id: string }> }) {
  await requirePerson();
  const record = recordOf((await params).id);
  if (!record) notFound();
  return <OwedLetter record={record} />;
}

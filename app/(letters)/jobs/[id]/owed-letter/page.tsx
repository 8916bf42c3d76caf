import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { readRecord } from "@/core/record";
import { recordPaper } from "@/server/report/record";
import { OwedLetter } from "@/ui/owed/owed-letter";

export const metadata: Metadata = { title: "Why this is owed" };

/**
 * The page for the customer or insurer: why each calibration is owed, in plain words. Made to be
 * printed.
 */
export default async function OwedLetterPage({ params }: { params: Promise<{ id: string }> }) {
  const me = await requirePerson();
  const paper = recordPaper((await params).id, me);
  if (!paper) notFound();
  return <OwedLetter record={readRecord(JSON.parse(paper.bytes.toString("utf8")))} />;
}

import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { readRecord } from "@/core/record";
import { recordPaper } from "@/server/report/record";
import { GlassLetter } from "@/ui/owed/glass-letter";

export const metadata: Metadata = { title: "How the glass sits" };

/** The notice to whoever fitted the glass: how it sits, and what that does to the camera. */
export default async function GlassLetterPage({ params }: { params: Promise<{ id: string }> }) {
  const me = await requirePerson();
  const paper = recordPaper((await params).id, me);
  const record = paper && readRecord(JSON.parse(paper.bytes.toString("utf8")));
  if (!record?.glass) notFound();
  return <GlassLetter record={record} glass={record.glass} />;
}

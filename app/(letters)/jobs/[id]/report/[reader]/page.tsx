import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { pageFor, READERS } from "@/server/report/record";
import { ReportPage } from "@/ui/hand-over/report-page";

export const metadata: Metadata = { title: "Report" };

type Asked = { params: Promise<{ id: string; reader: string }> };

/** The report for one reader, as a page to read and to print from. */
export default async function ReportPaper({ params }: Asked) {
  const me = await requirePerson();
  const asked = await params;
  const reader = READERS.find((r) => r === asked.reader);
  const paper = reader && pageFor(reader, asked.id, me);
  if (!reader || !paper) notFound();
  return (
    <ReportPage jobId={asked.id} reader={reader}>
      {paper}
    </ReportPage>
  );
}

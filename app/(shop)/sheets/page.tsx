import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { beginSheet, takeSheetFile } from "@/server/sheets/actions";
import { sheetBook } from "@/server/sheets/store";
import { listSheets } from "@/server/shop/store";
import { Sheets } from "@/ui/sheets/sheets";

export const metadata: Metadata = { title: "Sheets" };

export default async function SheetsPage() {
  const me = await requirePerson();
  const drafts = sheetBook.listDrafts().map((d) => ({
    key: d.key,
    title: String(d.doc.title ?? "Untitled"),
    version: Number(d.doc.version ?? 1),
    by: d.editorName,
    problems: d.problems.length,
  }));
  return (
    <Sheets
      items={listSheets()}
      drafts={drafts}
      writes={me.role !== "viewer"}
      takeFile={takeSheetFile}
      begin={beginSheet}
    />
  );
}

import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { dropSheetDraft, keepSheetDraft, signSheetDraft } from "@/server/sheets/actions";
import { sheetBook, sheetVersions } from "@/server/sheets/store";
import { listVehicles } from "@/server/shop/store";
import { SheetEditor } from "@/ui/sheets/sheet-editor";

export const metadata: Metadata = { title: "Sheet, draft" };

export default async function DraftPage({ params }: { params: Promise<{ key: string }> }) {
  const me = await requirePerson();
  const draft = sheetBook.findDraft((await params).key);
  if (!draft) notFound();
  const base = sheetVersions(String(draft.doc.id))[0] ?? null;
  return (
    <SheetEditor
      draft={draft}
      base={base}
      vehicles={listVehicles()}
      me={{ id: me.id, role: me.role }}
      keep={keepSheetDraft}
      sign={signSheetDraft}
      drop={dropSheetDraft}
    />
  );
}

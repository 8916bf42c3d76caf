import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { dropDraft, keepDraft, signDraft } from "@/server/sheets/actions";
import { findDraft, sheetVersions } from "@/server/sheets/store";
import { listVehicles } from "@/server/shop/store";
import { SheetEditor } from "@/ui/sheets/sheet-editor";

export const metadata: Metadata = { title: "Sheet, draft" };

export default async function DraftPage({ params }: { params: Promise<{ key: string }> }) {
  const me = await requirePerson();
  const draft = findDraft((await params).key);
  if (!draft) notFound();
  const base = sheetVersions(String(draft.doc.id))[0] ?? null;
  const vehicles = listVehicles().map((v) => ({ id: v.id, name: `${v.make} ${v.model}` }));
  return (
    <SheetEditor
      draft={draft}
      base={base}
      vehicles={vehicles}
      me={{ id: me.id, role: me.role }}
      keep={keepDraft}
      sign={signDraft}
      drop={dropDraft}
    />
  );
}

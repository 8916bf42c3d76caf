import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { dropVehicleDraft, keepVehicleDraft, signVehicleDraft } from "@/server/vehicles/actions";
import { vehicleBook, vehicleVersions } from "@/server/vehicles/store";
import { VehicleEditor } from "@/ui/vehicles/vehicle-editor";

export const metadata: Metadata = { title: "Vehicle, draft" };

export default async function VehicleDraftPage({ params }: { params: Promise<{ key: string }> }) {
  const me = await requirePerson();
  const draft = vehicleBook.findDraft((await params).key);
  if (!draft) notFound();
  const base = vehicleVersions(String(draft.doc.id))[0] ?? null;
  return (
    <VehicleEditor
      draft={draft}
      base={base}
      me={{ id: me.id, role: me.role }}
      keep={keepVehicleDraft}
      sign={signVehicleDraft}
      drop={dropVehicleDraft}
    />
  );
}

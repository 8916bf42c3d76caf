import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { beginVehicle, takeVehicleFile } from "@/server/vehicles/actions";
import { vehicleBook } from "@/server/vehicles/store";
import { listVehicles } from "@/server/shop/store";
import { Vehicles } from "@/ui/vehicles/vehicles";

export const metadata: Metadata = { title: "Vehicles" };

export default async function VehiclesPage() {
  const me = await requirePerson();
  const drafts = vehicleBook.listDrafts().map((d) => ({
    key: d.key,
    title: `${String(d.doc.make ?? "")} ${String(d.doc.model ?? "")}`.trim() || "Untitled",
    version: Number(d.doc.version ?? 1),
    by: d.editorName,
    problems: d.problems.length,
  }));
  return (
    <Vehicles
      items={listVehicles()}
      drafts={drafts}
      writes={me.role !== "viewer"}
      takeFile={takeVehicleFile}
      begin={beginVehicle}
    />
  );
}

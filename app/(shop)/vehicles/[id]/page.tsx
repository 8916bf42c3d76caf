import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { currentPerson } from "@/server/auth/session";
import { copyVehicle, newVehicleVersion, proposeVehicle } from "@/server/vehicles/actions";
import { learnedOf } from "@/server/vehicles/learned";
import { vehicleVersions } from "@/server/vehicles/store";
import { VehiclePage } from "@/ui/vehicles/vehicle-page";

type Context = { params: Promise<{ id: string }>; searchParams: Promise<{ version?: string }> };

export async function generateMetadata({ params }: Context): Promise<Metadata> {
  // A title tells nothing to who is not signed in.
  const me = await currentPerson();
  return { title: (me && vehicleVersions((await params).id)[0]?.model) || "Vehicle" };
}

export default async function OneVehiclePage({ params, searchParams }: Context) {
  const me = await requirePerson();
  const versions = vehicleVersions((await params).id);
  const wanted = Number((await searchParams).version ?? versions[0]?.version);
  const shown = versions.find((s) => (s.version ?? 1) === wanted);
  if (!shown) notFound();
  const previous = versions.find((s) => (s.version ?? 1) < (shown.version ?? 1)) ?? null;
  return (
    <VehiclePage
      doc={shown}
      previous={previous}
      versions={versions.map((s) => s.version ?? 1)}
      writes={me.role !== "viewer"}
      newVersion={newVehicleVersion}
      copy={copyVehicle}
      learned={wanted === versions[0]?.version ? learnedOf(shown) : null}
      propose={proposeVehicle}
    />
  );
}

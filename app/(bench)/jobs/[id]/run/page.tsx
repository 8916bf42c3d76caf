import { viewsOf } from "@/core/job";
import { driftSights } from "@/server/jobs/drift";
import { findJob } from "@/server/jobs/store";
import { Run } from "@/ui/run/run";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const ground = findJob(id)?.ground;
  const stands = new Set(ground ? viewsOf(ground).map((g) => g.stand.id) : []);
  const sights = Object.fromEntries([...stands].map((stand) => [stand, driftSights(stand, id)]));
  return <Run sights={sights} />;
}

import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { handOn } from "@/server/jobs/actions";
import { keepFloor } from "@/server/kit/actions";
import { eventsAfter } from "@/server/jobs/log";
import { findJob } from "@/server/jobs/store";
import { JobProvider } from "@/ui/bench/job-store";
import { StandView } from "@/ui/stand/stand-view";

export const metadata: Metadata = { title: "Stand" };

/** The stand view: the next act alone, for a phone that joined by a code, or any signed-in one. */
export default async function StandPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const me = await requirePerson(id);
  const job = findJob(id);
  if (!job) notFound();
  return (
    <JobProvider
      key={job.id}
      head={{ id: job.id, number: job.number, simulated: !job.ground.real }}
      me={me}
      ground={job.ground}
      initial={eventsAfter(job.id)}
      actions={{ handOn, keepFloor }}
    >
      <StandView />
    </JobProvider>
  );
}

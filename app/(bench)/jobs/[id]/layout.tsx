import type { Metadata } from "next";
import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { requirePerson } from "@/server/auth/guard";
import { currentPerson } from "@/server/auth/session";
import { handOn } from "@/server/jobs/actions";
import { keepFloor } from "@/server/kit/actions";
import { eventsAfter } from "@/server/jobs/log";
import { findJob } from "@/server/jobs/store";
import { Bench } from "@/ui/bench/bench";
import { JobProvider } from "@/ui/bench/job-store";

type Context = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Context): Promise<Metadata> {
  // A title tells nothing to who is not signed in.
  const me = await currentPerson();
  const job = me && !me.onlyJob ? findJob((await params).id) : null;
  return { title: job ? `${job.number} ${job.ground.vehicle.model}` : "Job" };
}

/** The bench of one job: the store is filled once here; every stage works on it. */
export default async function JobLayout({ children, params }: Context & { children: ReactNode }) {
  const me = await requirePerson();
  const job = findJob((await params).id);
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
      <Bench>{children}</Bench>
    </JobProvider>
  );
}

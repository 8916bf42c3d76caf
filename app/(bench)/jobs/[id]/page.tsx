import { redirect } from "next/navigation";
import { stageStates } from "@/core/job";
import { requirePerson } from "@/server/auth/guard";
import { eventsAfter } from "@/server/jobs/log";
import { findJob } from "@/server/jobs/store";

/**
 * A job without a stage opens where its work is: the first stage that refuses or lacks something.
 */
export default async function JobPage({ params }: { params: Promise<{ id: string }> }) {
  await requirePerson();
  const { id } = await params;
  const job = findJob(id);
  if (!job) redirect("/");
  const states = stageStates(eventsAfter(id), job.ground);
  const open =
    states.find((s) => s.state === "stop") ??
    states.find((s) => s.lacks !== null && s.state !== "none");
  redirect(`/jobs/${id}/${open?.id ?? "hand-over"}`);
}

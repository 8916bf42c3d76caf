import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { listJobs } from "@/server/jobs/list";
import { takeStarter } from "@/server/starter/actions";
import { firstSteps } from "@/server/starter/steps";
import { Jobs } from "@/ui/jobs/jobs";

export const metadata: Metadata = { title: "Jobs" };

export default async function JobsPage() {
  const me = await requirePerson();
  return (
    <Jobs
      first={listJobs({})}
      steps={me.role === "viewer" ? null : firstSteps()}
      lead={me.role === "lead"}
      takeStarter={takeStarter}
      now={new Date().toISOString()}
      mayTakeIn={me.role !== "viewer"}
    />
  );
}

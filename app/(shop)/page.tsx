import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { jobTickets } from "@/server/jobs/tickets";
import { Jobs } from "@/ui/jobs/jobs";

export const metadata: Metadata = { title: "Jobs" };

export default async function JobsPage({ searchParams }: { searchParams: Promise<{ find?: string }> }) {
  const me = await requirePerson();
  const { find } = await searchParams;
  return (
    <Jobs
      tickets={jobTickets()}
      now={new Date().toISOString()}
      mayTakeIn={me.role !== "viewer"}
      find={find !== undefined}
    />
  );
}

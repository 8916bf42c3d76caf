import { standingHandOver } from "@/core/job";
import { readRecord } from "@/core/record";
import { requirePerson } from "@/server/auth/guard";
import { eraseCustomerOf } from "@/server/jobs/actions";
import { eventsAfter, verifyJob } from "@/server/jobs/log";
import { keptDocument, versionOf } from "@/server/report/documents";
import { HandOver } from "@/ui/hand-over/hand-over";

/**
 * Hand over: once the job is handed over, the record as it was made then, not as this program would
 * make it now.
 */
export default async function HandOverPage({ params }: { params: Promise<{ id: string }> }) {
  await requirePerson();
  const { id } = await params;
  const events = eventsAfter(id);
  const bytes = standingHandOver(events) ? keptDocument(id, "record", versionOf(events)) : null;
  const kept = bytes && bytes !== "erased" ? readRecord(JSON.parse(bytes.toString("utf8"))) : null;
  return <HandOver kept={kept} log={verifyJob(id)} erase={eraseCustomerOf} />;
}

import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { Archives } from "@/ui/archives/archives";

export const metadata: Metadata = { title: "Check an archive" };

/** An archive of a job, from this house or another: is it whole, and what does it hold? */
export default async function ArchivesPage() {
  const me = await requirePerson();
  return <Archives mayKeep={RIGHTS["bring-in"].includes(me.role)} />;
}

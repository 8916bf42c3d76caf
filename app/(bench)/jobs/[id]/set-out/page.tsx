import { standsLeft } from "@/server/jobs/stand-left";
import { findJob } from "@/server/jobs/store";
import { squaresOf, standCode } from "@/server/stand/actions";
import { SetOut } from "@/ui/set-out/set-out";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const job = findJob((await params).id);
  const left = job ? standsLeft(job, new Date()) : {};
  return <SetOut stand={{ code: standCode, squares: squaresOf }} left={left} />;
}

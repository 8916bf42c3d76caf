import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { requirePerson, WRITERS } from "@/server/auth/guard";
import { pastByVin, pastByWords, takeInVehicle, vinFromTool } from "@/server/jobs/actions";
import { usualVehicles } from "@/server/jobs/past";
import { failedStands, listBoards, listTools } from "@/server/kit/store";
import { bookedFor } from "@/server/day/booked";
import { shopDay } from "@/server/shop/clock";
import { listSheets, listStands, listVehicles, ruleBook } from "@/server/shop/store";
import { TakeIn } from "@/ui/take-in/take-in";

export const metadata: Metadata = { title: "Take in" };

export default async function TakeInPage({
  searchParams,
}: {
  searchParams: Promise<{ booking?: string }>;
}) {
  const me = await requirePerson();
  if (!WRITERS.includes(me.role)) redirect("/");
  return (
    <TakeIn
      vehicles={listVehicles()}
      usual={usualVehicles()}
      sheets={listSheets()}
      stands={listStands()}
      boards={listBoards().filter((b) => b.condition !== "out of use")}
      tools={listTools()}
      today={shopDay()}
      me={me.name}
      failed={Object.fromEntries(failedStands())}
      book={ruleBook()}
      past={{ byWords: pastByWords, byVin: pastByVin }}
      open={takeInVehicle}
      vinFromTool={vinFromTool}
      booked={bookedFor((await searchParams).booking ?? null)}
    />
  );
}

import type { Metadata } from "next";
import { isOverdue } from "@/core/kit";
import { requirePerson } from "@/server/auth/guard";
import {
  feedToken,
  instrumentChecked,
  revokeFeed,
  takeKitFile,
  writeKitItem,
  zeroCheck,
} from "@/server/kit/actions";
import { lastChecks, listBoards, listTools } from "@/server/kit/store";
import { shopDay } from "@/server/shop/clock";
import { listCheckedInstruments, listStands } from "@/server/shop/store";
import { Kit } from "@/ui/kit/kit";

export const metadata: Metadata = { title: "Kit" };

export default async function KitPage({
  searchParams,
}: {
  searchParams: Promise<{ find?: string }>;
}) {
  const me = await requirePerson();
  const { find } = await searchParams;
  const today = shopDay();
  const checks = lastChecks();
  const stands = listStands().map((s) => {
    const check = checks.get(s.id) ?? null;
    return {
      id: s.id,
      name: s.name,
      doc: s,
      check,
      today: check !== null && shopDay(check.at) === today,
    };
  });
  const instruments = listCheckedInstruments().map((i) => ({ ...i, overdue: isOverdue(i, today) }));
  return (
    <Kit
      key={find}
      looked={typeof find === "string" ? find : ""}
      boards={listBoards()}
      stands={stands}
      instruments={instruments}
      tools={listTools()}
      today={today}
      writes={me.role !== "viewer"}
      zero={zeroCheck}
      checked={instrumentChecked}
      write={writeKitItem}
      takeFile={takeKitFile}
      feed={feedToken}
      revoke={revokeFeed}
    />
  );
}

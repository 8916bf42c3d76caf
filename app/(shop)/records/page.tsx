import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { records, recordsAsked } from "@/server/numbers/query";
import { usedInRecords } from "@/server/numbers/store";
import { shopClock } from "@/server/shop/clock";
import { Records } from "@/ui/records/records";

export const metadata: Metadata = { title: "Records" };

const SHOWN = 100;

/** What was handed over, found by anything that was used on it. */
export default async function RecordsPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  await requirePerson();
  const asked = recordsAsked.parse(await searchParams);
  const { rows, total, checkedAt } = records(asked, SHOWN);
  return (
    <Records
      asked={asked}
      used={usedInRecords()}
      rows={rows}
      total={total}
      checkedAt={checkedAt}
      zone={shopClock().zone}
    />
  );
}

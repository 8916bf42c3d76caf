import type { Metadata } from "next";
import { requirePerson } from "@/server/auth/guard";
import { numbersPage } from "@/server/numbers/page";
import { causeName } from "@/server/numbers/query";
import { Numbers } from "@/ui/numbers/numbers";

export const metadata: Metadata = { title: "Numbers" };

const YEARS = 2;

/** How the shop does: first attempts, minutes, causes, what was declined, and what drifts. */
export default async function NumbersPage() {
  await requirePerson();
  const { causes, ...numbers } = numbersPage(YEARS, new Date());
  const named = causes.map((c) => ({ name: causeName(c.cause), count: c.count }));
  return <Numbers numbers={numbers} causes={named} />;
}

import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { requirePerson } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { shopLines, verifyShop } from "@/server/log/shop";
import { everybody } from "@/server/people/store";
import { ShopLog } from "@/ui/shop/shop-log";

export const metadata: Metadata = { title: "Shop log" };

/** What the shop is bound by, and who changed it: the lead's to read. */
export default async function ShopLogPage() {
  const me = await requirePerson();
  if (!RIGHTS["read-shop-log"].includes(me.role)) redirect("/settings");
  const names = Object.fromEntries(everybody().map((p) => [p.id, p.name]));
  return <ShopLog lines={shopLines()} chain={verifyShop()} names={names} />;
}

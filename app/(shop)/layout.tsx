import type { ReactNode } from "react";
import { signOut } from "@/server/auth/actions";
import { requirePerson } from "@/server/auth/guard";
import { Find } from "@/ui/find/find";
import { ShopBar } from "@/ui/shop/shop-bar";

export default async function ShopLayout({ children }: { children: ReactNode }) {
  const me = await requirePerson();
  return (
    <div className="flex min-h-dvh flex-col">
      <ShopBar me={{ name: me.name, role: me.role }} signOut={signOut} />
      {children}
      <Find />
    </div>
  );
}

"use client";

import { Search } from "lucide-react";
import Link from "next/link";
import { usePathname } from "next/navigation";
import { openFind } from "../find/find";
import { Toggles } from "../settings";
import { LEADS, PLACES } from "./places";

const showSelf = (link: HTMLAnchorElement | null): void =>
  link?.scrollIntoView({ block: "nearest", inline: "center" });

/** The line above every page of the shop: where one can go, who is here. */
export function ShopBar({
  me,
  signOut,
}: {
  me: { name: string; role: string };
  signOut: () => Promise<void>;
}) {
  const here = usePathname();
  const places = me.role === "lead" ? [...PLACES, LEADS] : PLACES;
  return (
    <header className="flex min-h-14 shrink-0 flex-wrap items-center gap-x-2 border-b border-hairline px-3 lg:px-6">
      <span className="mr-2 hidden text-xl font-semibold tracking-tight sm:inline lg:mr-4">
        Iridel
      </span>
      <nav aria-label="Shop" className="flex min-w-0 overflow-x-auto">
        {places.map((p) => (
          <Link
            key={p.href}
            href={p.href}
            // On a phone the row is longer than the screen: where one is must be seen.
            ref={here === p.href ? showSelf : undefined}
            aria-current={
              here === p.href || (p.href !== "/" && here.startsWith(p.href)) ? "page" : undefined
            }
            className={`flex min-h-14 items-center whitespace-nowrap border-b-4 px-2.5 text-lg ${here === p.href || (p.href !== "/" && here.startsWith(p.href)) ? "border-act font-semibold" : "border-transparent text-soft hover:text-ink"}`}
          >
            {p.name}
          </Link>
        ))}
      </nav>
      <span className="ml-auto hidden text-base text-soft 2xl:inline">
        {me.name}, {me.role}
      </span>
      <span className="ml-auto flex items-center 2xl:ml-2">
        <button
          type="button"
          onClick={openFind}
          aria-label="Find or go to"
          aria-keyshortcuts="/"
          className="flex min-h-12 min-w-12 items-center justify-center rounded-md hover:bg-wash"
        >
          <Search size={20} aria-hidden />
        </button>
        <Toggles />
        <form action={signOut}>
          <button
            type="submit"
            className="min-h-12 rounded-md px-2 text-base font-semibold hover:bg-wash"
          >
            Sign out
          </button>
        </form>
      </span>
    </header>
  );
}

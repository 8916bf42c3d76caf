"use client";

import Link from "next/link";
import type { ReactNode } from "react";
import { Toggles } from "../settings";
import { useJob } from "./job-store";

const DOT: Record<string, string> = {
  saved: "bg-settled",
  sending: "bg-act",
  offline: "bg-loose",
  conflict: "bg-stop",
};

/** One line above the bench: which job, who else is on it, whether everything is kept. */
export function TopBar({
  onKeys,
  onSlip,
  children,
}: {
  onKeys: () => void;
  onSlip: () => void;
  /** The stopwatch, once it is there. */
  children: ReactNode;
}) {
  const { head, ground, me, others, connection, pending } = useJob();
  const { vehicle, intake } = ground;
  const words = {
    saved: "All kept",
    sending: "Sending",
    offline: `${pending.length} kept here`,
    conflict: "Two tablets wrote",
  }[connection.kind];
  return (
    <header className="flex min-h-12 shrink-0 items-center gap-3 border-b border-hairline px-3 text-base">
      <Link
        href="/"
        className="flex min-h-12 items-center font-semibold text-act"
        aria-label="All jobs"
      >
        Jobs
      </Link>
      <span className="figure font-semibold">{head.number}</span>
      <span className="min-w-0 truncate">
        <b className="font-semibold">
          {vehicle.make} {vehicle.model}
        </b>
        <span className="hidden text-soft sm:inline">
          {" "}
          · {intake.plate || "no plate"} · {intake.customer}
        </span>
      </span>
      <span className="ml-auto hidden items-center gap-2 whitespace-nowrap text-sm text-soft lg:flex">
        {others.length > 0 && <span>Also here: {others.map((o) => o.name).join(", ")}</span>}
      </span>
      <span
        role="status"
        className="ml-auto flex items-center gap-2 whitespace-nowrap text-sm lg:ml-0"
      >
        <span className={`inline-block h-2.5 w-2.5 rounded-full ${DOT[connection.kind]}`} />
        <span className={connection.kind === "saved" ? "hidden sm:inline" : ""}>
          {words}
          {connection.kind === "offline" && <span className="hidden sm:inline">, not sent</span>}
        </span>
      </span>
      <span className="hidden whitespace-nowrap text-sm text-soft md:inline">{me.name}</span>
      <button
        type="button"
        onClick={onSlip}
        className="min-h-12 rounded-md px-2 font-semibold hover:bg-wash lg:hidden"
      >
        Slip
      </button>
      <span className="flex justify-end md:min-w-16">{children}</span>
      <Toggles />
      <button
        type="button"
        onClick={onKeys}
        className="hidden min-h-12 min-w-10 rounded-md font-semibold hover:bg-wash md:block"
        aria-label="Keys"
      >
        ?
      </button>
    </header>
  );
}

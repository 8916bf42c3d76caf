"use client";

import Link from "next/link";
import { usePathname } from "next/navigation";
import { STAGES } from "@/core/job";
import { Mark } from "../primitives/marks";
import { useJob } from "./job-store";

/** The eight stages: what is done, what is loose, what refuses. Any of them opens at any time. */
export function Rail() {
  const { stages, head } = useJob();
  const here = usePathname().split("/").at(-1);
  return (
    <nav
      aria-label="Stages"
      className="flex shrink-0 border-b border-hairline md:w-[92px] md:flex-col md:border-b-0 md:border-r"
    >
      {STAGES.map((s, i) => {
        const { state, lacks } = stages[i]!;
        const current = here === s.id;
        return (
          <Link
            key={s.id}
            href={`/jobs/${head.id}/${s.id}`}
            prefetch={false}
            aria-current={current ? "page" : undefined}
            title={lacks ?? undefined}
            className={`relative flex min-h-14 flex-1 flex-col items-center justify-center gap-0.5 px-1 text-center md:min-h-16 ${current ? "bg-sheet" : "hover:bg-wash"}`}
          >
            {current && (
              <span className="absolute inset-x-0 bottom-0 h-1 bg-act md:inset-x-auto md:inset-y-0 md:left-0 md:h-auto md:w-1" />
            )}
            <span className="flex items-center gap-1.5">
              <span className={`figure text-xl font-semibold ${current ? "text-act" : "text-ink"}`}>
                {s.n}
              </span>
              <Mark state={state} size={12} />
            </span>
            <span
              className={`whitespace-nowrap leading-none md:text-sm ${current ? "text-xs font-semibold" : "sr-only text-soft md:not-sr-only"}`}
            >
              {s.name}
            </span>
          </Link>
        );
      })}
    </nav>
  );
}

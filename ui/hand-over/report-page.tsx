"use client";

import type { ReactNode } from "react";
import { Button, ButtonLink } from "../primitives/button";

export const READER_NAMES = {
  customer: "For the customer",
  insurer: "For the insurer",
  file: "For the file",
} as const;
type Reader = keyof typeof READER_NAMES;

/** A report as a sheet of paper on the desk: the other readers’ beside it, and the printer. */
export function ReportPage({
  jobId,
  reader,
  children,
}: {
  jobId: string;
  reader: Reader;
  children: ReactNode;
}) {
  const pdf = `/api/jobs/${jobId}/report${reader === "file" ? "" : `?for=${reader}`}`;
  return (
    <main className="mx-auto w-full max-w-[860px] p-3 lg:p-6 print:p-0">
      <nav
        aria-label="Readers"
        className="no-print mb-4 flex flex-wrap items-center justify-between gap-2"
      >
        <span className="flex flex-wrap gap-1">
          {(Object.keys(READER_NAMES) as Reader[]).map((r) => (
            <a
              key={r}
              href={`/jobs/${jobId}/report/${r}`}
              aria-current={r === reader ? "page" : undefined}
              className="inline-flex min-h-14 items-center rounded-md px-4 text-lg font-semibold hover:bg-wash aria-[current=page]:bg-ink aria-[current=page]:text-paper"
            >
              {READER_NAMES[r]}
            </a>
          ))}
        </span>
        <span className="flex flex-wrap gap-2">
          <ButtonLink href={pdf} look="plain">
            PDF
          </ButtonLink>
          <Button look="act" onClick={() => window.print()}>
            Print
          </Button>
        </span>
      </nav>
      <div className="overflow-x-auto print:overflow-visible">{children}</div>
    </main>
  );
}

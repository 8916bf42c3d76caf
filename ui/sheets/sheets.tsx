"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import type { Sheet } from "@/core/sheet";
import { formatNumber } from "@/core/units";
import { DATUM_NAMES } from "@/core/vehicle";
import { Button } from "../primitives/button";
import { Mark } from "../primitives/marks";

type Draft = { key: string; title: string; version: number; by: string; problems: number };
type Props = {
  sheets: Sheet[];
  drafts: Draft[];
  writes: boolean;
  takeFile: (text: string) => Promise<{ ok: true; key: string } | { ok: false; message: string }>;
};

/** The shop's book of procedure sheets, and the drafts on their way into it. */
export function Sheets({ sheets, drafts, writes, takeFile }: Props) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [message, setMessage] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = sheets.filter((s) =>
    words.every((w) =>
      JSON.stringify([s.title, s.id, s.appliesTo, s.datum, s.board.code, s.source]).toLowerCase().includes(w),
    ),
  );

  const take = async (chosen: File | undefined): Promise<void> => {
    if (!chosen) return;
    const answer = await takeFile(await chosen.text()).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Try again when it is back.",
    }));
    if (answer.ok) router.push(`/sheets/drafts/${answer.key}`);
    else setMessage(answer.message);
    if (file.current) file.current.value = "";
  };

  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1 px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3">
        <h1 className="text-4xl font-semibold">Sheets</h1>
        <label className="flex min-w-60 flex-1 border-b-2 border-ink focus-within:border-act">
          <span className="sr-only">Find a sheet</span>
          <input type="search" value={text} onChange={(e) => setText(e.target.value)} placeholder="Find by title, vehicle, board, source" className="min-h-14 w-full bg-transparent px-1 text-xl outline-none placeholder:text-soft" />
        </label>
        {writes && (
          <>
            <input ref={file} type="file" accept="application/json,.json" className="sr-only" id="sheet-file"
              aria-label="Sheet file"
              tabIndex={-1} onChange={(e) => void take(e.target.files?.[0])} />
            <Button look="plain" size="large" onClick={() => file.current?.click()}>
              Import a file
            </Button>
          </>
        )}
      </div>
      {message && (
        <p role="alert" className="mt-3 border-l-4 border-stop bg-sheet px-4 py-3 text-lg text-stop">
          {message}
        </p>
      )}
      {drafts.length > 0 && (
        <section aria-label="Drafts" className="mt-4">
          <h2 className="text-sm font-semibold text-soft">On their way: used only once a second person has checked them</h2>
          <ul>
            {drafts.map((d) => (
              <li key={d.key}>
                <Link href={`/sheets/drafts/${d.key}`} className="flex min-h-14 items-center gap-3 border-b border-dashed border-hairline px-2 hover:bg-sheet">
                  <Mark state={d.problems > 0 ? "stop" : "loose"} />
                  <span className="flex-1 text-lg font-semibold">
                    {d.title}, version {d.version}
                  </span>
                  <span className="text-base text-soft">{d.problems > 0 ? `${d.problems} to put right` : "to be checked"}</span>
                  <span className="w-36 text-right text-base text-soft">by {d.by}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      <ul className="mt-4 border-t-2 border-ink" aria-label="Sheets in use">
        {shown.map((s) => (
          <li key={s.id}>
            <Link href={`/sheets/${s.id}`} className="grid grid-cols-[1fr_auto] items-center gap-x-6 border-b border-hairline px-2 py-3 hover:bg-sheet lg:grid-cols-[1.4fr_1fr_1fr_auto]">
              <span>
                <span className="block text-xl font-semibold leading-tight">{s.title}</span>
                <span className="text-base text-soft">
                  {s.source.name}, {s.source.date}
                </span>
              </span>
              <span className="hidden text-base lg:block">
                <span className="figure font-semibold">{formatNumber(s.placement.alongMm)} mm</span> ahead, on the {DATUM_NAMES[s.datum]}
              </span>
              <span className="hidden text-base text-soft lg:block">
                board {s.board.code}, {s.run.length} steps
              </span>
              <span className="text-right">
                <span className="figure block text-lg font-semibold">v{s.version}</span>
                <span className="text-sm text-soft">checked by {s.source.checkedBy}</span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {shown.length === 0 && <p className="py-12 text-center text-xl text-soft">{sheets.length === 0 ? "No sheet yet. Import one, or enter it from the shop’s own service information." : "No sheet fits these words."}</p>}
    </main>
  ); // prettier-ignore
}

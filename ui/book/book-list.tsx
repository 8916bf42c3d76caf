"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { fits } from "@/core/book/fits";
import { FindField } from "../lists/find-field";
import { ListTable, type Column } from "../lists/list-table";
import { Button } from "../primitives/button";
import { FileButton } from "../primitives/file-button";
import { Mark } from "../primitives/marks";

type Answer = Promise<{ ok: true; key: string } | { ok: false; message: string }>;

/** What the page of a book hands to its list. */
export type BookList<T> = {
  items: T[];
  drafts: { key: string; title: string; version: number; by: string; problems: number }[];
  writes: boolean;
  takeFile: (text: string) => Answer;
  /** Begins a document from nothing. */
  begin: () => Answer;
};

/** A book of the shop: what is in use, and the drafts on their way into it. */
export function BookListPage<T extends { id: string }>({
  items,
  drafts,
  writes,
  takeFile,
  begin,
  title,
  noun,
  href,
  placeholder,
  textOf,
  empty,
  columns,
}: BookList<T> & {
  title: string;
  noun: string;
  href: string;
  placeholder: string;
  /** Everything a search may find an item by. */
  textOf: (item: T) => string;
  empty: string;
  columns: Column<T>[];
}) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [message, setMessage] = useState<string | null>(null);
  const shown = items.filter((s) => fits(textOf(s), text));

  const open = async (made: Answer): Promise<void> => {
    const answer = await made.catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Try again when it is back.",
    }));
    if (answer.ok) router.push(`${href}/drafts/${answer.key}`);
    else setMessage(answer.message);
  };
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1 px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3">
        <h1 className="text-4xl font-semibold">{title}</h1>
        <FindField
          label={`Find a ${noun}`}
          placeholder={placeholder}
          value={text}
          onChange={setText}
        />
        {writes && (
          <>
            <FileButton
              noun={noun}
              look="plain"
              size="large"
              onText={(text) => void open(takeFile(text))}
            />
            <Button look="act" size="large" onClick={() => void open(begin())}>
              New {noun}
            </Button>
          </>
        )}
      </div>
      {message && (
        <p
          role="alert"
          className="mt-3 border-l-4 border-stop bg-sheet px-4 py-3 text-lg text-stop"
        >
          {message}
        </p>
      )}
      {drafts.length > 0 && (
        <section aria-label="Drafts" className="mt-4">
          <h2 className="text-sm font-semibold text-soft">
            On their way: used only once a second person has checked them
          </h2>
          <ul>
            {drafts.map((d) => (
              <li key={d.key}>
                <Link
                  href={`${href}/drafts/${d.key}`}
                  className="flex min-h-14 items-center gap-3 border-b border-dashed border-hairline px-2 hover:bg-sheet"
                >
                  <Mark state={d.problems > 0 ? "stop" : "loose"} />
                  <span className="flex-1 text-lg font-semibold">
                    {d.title}, version {d.version}
                  </span>
                  <span className="text-base text-soft">
                    {d.problems > 0 ? `${d.problems} to put right` : "to be checked"}
                  </span>
                  <span className="w-36 text-right text-base text-soft">by {d.by}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      {shown.length > 0 && (
        <ListTable
          id={noun}
          label={`${title} in use`}
          columns={columns}
          rows={shown}
          keyOf={(s) => s.id}
          href={(s) => `${href}/${s.id}`}
        />
      )}
      {shown.length === 0 && (
        <p className="py-12 text-center text-xl text-soft">
          {items.length === 0 ? empty : `No ${noun} fits these words.`}
        </p>
      )}
    </main>
  );
}

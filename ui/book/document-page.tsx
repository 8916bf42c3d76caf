"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState, type ReactNode } from "react";
import { differences } from "@/core/book";
import { FieldName } from "./field-name";
import { Button } from "../primitives/button";
import { Paper } from "../primitives/paper";

type Answer = Promise<{ ok: true; key: string } | { ok: false; message: string }>;

/** What the page of one document hands over. */
export type DocumentPage<T> = {
  doc: T;
  previous: T | null;
  versions: number[];
  writes: boolean;
  newVersion: (id: string) => Answer;
  copy: (id: string) => Answer;
};

/**
 * One document of the shop's book as it is used, its versions, and what changed from the one
 * before.
 */
export function BookDocument<T extends { id: string; version?: number }>({
  doc,
  previous,
  versions,
  writes,
  newVersion,
  copy,
  title,
  href,
  signatures,
  nameOf,
  children,
}: DocumentPage<T> & {
  title: string;
  href: string;
  /** Paths that signing itself changes; they are no difference. */
  signatures: readonly string[];
  /** A field as people call it. */
  nameOf: (path: string) => string;
  children: ReactNode;
}) {
  const router = useRouter();
  const [message, setMessage] = useState<string | null>(null);
  const changes = previous
    ? differences(previous, doc).filter((d) => !["version", ...signatures].includes(d.path))
    : [];
  const begin = async (how: (id: string) => Answer): Promise<void> => {
    const answer = await how(doc.id).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Try again when it is back.",
    }));
    if (answer.ok) router.push(`${href}/drafts/${answer.key}`);
    else setMessage(answer.message);
  };
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1">
      <Paper
        title={title}
        aside={
          <span className="flex flex-wrap items-center gap-2">
            {versions.map((v) => (
              <Link
                key={v}
                href={`${href}/${doc.id}?version=${v}`}
                aria-current={v === doc.version ? "page" : undefined}
                className={`figure inline-flex min-h-12 min-w-12 items-center justify-center rounded-md border-2 px-2 font-semibold ${v === doc.version ? "border-act" : "border-hairline"}`}
              >
                v{v}
              </Link>
            ))}
            <a
              href={`/api${href}/${doc.id}?version=${doc.version}`}
              download
              className="inline-flex min-h-12 items-center rounded-md px-3 font-semibold hover:bg-wash"
            >
              Export
            </a>
            {writes && (
              <Button look="quiet" onClick={() => void begin(copy)}>
                Copy as new
              </Button>
            )}
            {writes && (
              <Button look="act" onClick={() => void begin(newVersion)}>
                New version
              </Button>
            )}
          </span>
        }
      >
        {message && (
          <p role="alert" className="mb-3 text-lg text-stop">
            {message}
          </p>
        )}
        {changes.length > 0 && (
          <section aria-label="What changed" className="mb-4 border-l-4 border-loose pl-4">
            <h2 className="text-xl font-semibold">
              What changed since version {previous!.version}
            </h2>
            <table className="w-full text-base">
              <tbody>
                {changes.map((d) => (
                  <tr key={d.path} className="border-b border-dashed border-hairline align-top">
                    <td className="py-1 pr-4">
                      <FieldName path={d.path} nameOf={nameOf} />
                    </td>
                    <td className="pr-4 text-soft line-through [overflow-wrap:anywhere]">
                      {d.before}
                    </td>
                    <td className="[overflow-wrap:anywhere]">{d.after}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        )}
        {children}
      </Paper>
    </main>
  );
}

/** A figure of a document large enough to be compared across a bench. */
export const Big = ({ name, value, note }: { name: string; value: string; note?: string }) => (
  <div>
    <p className="text-sm text-soft">{name}</p>
    <p className="figure text-3xl font-semibold">{value}</p>
    {note && <p className="figure text-base whitespace-normal! text-soft">{note}</p>}
  </div>
);

export const Numbered = ({ items }: { items: ReactNode[] }) => (
  <ol className="list-decimal pl-5">
    {items.map((x, i) => (
      <li key={i}>{x}</li>
    ))}
  </ol>
);

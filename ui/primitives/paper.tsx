import type { ReactNode } from "react";

/** A sheet of paper on the bench: a heading, and what is written under it. */
export function Paper({
  title,
  note,
  children,
  aside,
}: {
  title: string;
  note?: ReactNode;
  children: ReactNode;
  aside?: ReactNode;
}) {
  return (
    <article className="m-3 bg-sheet px-5 py-4 lg:m-5 lg:px-8 lg:py-6">
      <header className="mb-3 flex flex-wrap items-baseline justify-between gap-x-6 border-b-2 border-ink pb-2">
        <h1 className="text-3xl font-semibold leading-tight">{title}</h1>
        {note && <p className="text-lg text-soft">{note}</p>}
        {aside}
      </header>
      {children}
    </article>
  );
}

/** Named facts, one a line. */
export function Facts({ facts }: { facts: [string, ReactNode][] }) {
  return (
    <dl className="grid gap-x-8 sm:grid-cols-[minmax(160px,auto)_1fr]">
      {facts.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="pt-2 text-base text-soft sm:border-b sm:border-dashed sm:border-hairline sm:pb-2">
            {name}
          </dt>
          <dd className="border-b border-dashed border-hairline pb-2 text-lg [overflow-wrap:anywhere] sm:pt-2">
            {value}
          </dd>
        </div>
      ))}
    </dl>
  );
}

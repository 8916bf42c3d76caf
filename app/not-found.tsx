import type { Metadata } from "next";

export const metadata: Metadata = { title: "Not here" };

/** A link that leads nowhere: a job that was erased, a mistyped address. */
export default function NotFound() {
  return (
    <main className="mx-auto flex min-h-dvh max-w-2xl flex-col justify-center gap-4 px-6">
      <h1 className="text-4xl font-semibold">There is nothing here</h1>
      <p className="text-xl text-soft">
        The address may be mistyped, or the job or document is no longer kept.
      </p>
      <p>
        {/* A plain link: it costs no other page a script. */}
        {/* eslint-disable-next-line @next/next/no-html-link-for-pages */}
        <a
          href="/"
          className="inline-flex min-h-16 items-center rounded-md bg-act px-5 text-xl font-semibold text-on-act"
        >
          To the jobs
        </a>
      </p>
    </main>
  );
}

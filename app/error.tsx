"use client";

/** A page that broke off. What was typed lies on the tablet and is there again. */
export default function PageError({ reset }: { error: Error; reset: () => void }) {
  return (
    <main className="mx-auto flex min-h-dvh max-w-2xl flex-col justify-center gap-4 px-6">
      <h1 className="text-4xl font-semibold">This page broke off</h1>
      <p className="text-xl text-soft">
        What you typed is kept on this tablet. Try it again; if it breaks off again, open the job
        from the list, and tell the lead what you did last.
      </p>
      <p className="flex gap-3">
        <button
          type="button"
          onClick={reset}
          className="min-h-16 rounded-md bg-act px-5 text-xl font-semibold text-on-act"
        >
          Try again
        </button>
        {/* A whole new page: what broke off is not carried along. */}
        {/* eslint-disable-next-line @next/next/no-html-link-for-pages */}
        <a
          href="/"
          className="inline-flex min-h-16 items-center rounded-md border-2 border-ink px-5 text-xl font-semibold"
        >
          To the jobs
        </a>
      </p>
    </main>
  );
}

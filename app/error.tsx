"use client";

/** A page that broke off. What was typed lies on the tablet and is there again. */
export default function PageError({ reset }: { reset: () => void }) {
  return (
    <main className="mx-auto max-w-2xl px-6 py-20 text-xl">
      <h1 className="text-4xl font-semibold">This page broke off</h1>
      <p className="my-4">What you typed is kept on this tablet. Try it again, or tell the lead.</p>
      <button onClick={reset} className="min-h-16 bg-act px-5 text-on-act">
        Try again
      </button>{" "}
      {/* A whole new page: what broke off is not carried along. */}
      {/* eslint-disable-next-line @next/next/no-html-link-for-pages */}
      <a href="/" className="px-5 font-semibold">
        To the jobs
      </a>
    </main>
  );
}

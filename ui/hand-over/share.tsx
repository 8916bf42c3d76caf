"use client";

import { useEffect, useState } from "react";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { useTimes } from "../settings";

const READERS = {
  customer: "For the customer, one page",
  insurer: "For the insurer",
  file: "The whole report",
} as const;
type Reader = keyof typeof READERS;

type Link = {
  id: string;
  reader: Reader;
  by: string;
  sentTo: string | null;
  createdAt: string;
  expiresAt: string;
  revokedAt: string | null;
  seenAt: string | null;
};

const field = "min-h-12 rounded-md border border-hairline bg-sheet px-2 text-base text-ink";

/** A paper is shown outside: by a link that ends by itself and can be taken back. */
export function Share() {
  const { head, me, say } = useJob();
  const { dateAndTime } = useTimes();
  const [links, setLinks] = useState<Link[] | null>(null);
  const [reader, setReader] = useState<Reader>("customer");
  const [days, setDays] = useState("14");
  const [to, setTo] = useState("");
  const [made, setMade] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const address = `/api/jobs/${head.id}/shares`;
  useEffect(() => {
    let stopped = false;
    void fetch(address)
      .then(async (r) => (r.ok ? ((await r.json()) as { links: Link[] }).links : null))
      .catch(() => null)
      .then((found) => !stopped && setLinks(found));
    return () => {
      stopped = true;
    };
  }, [address]);
  const ask = async (body: object): Promise<{ url?: string; links?: Link[] } | null> => {
    setBusy(true);
    try {
      const response = await fetch(address, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(body),
      });
      const got = (await response.json().catch(() => ({}))) as {
        url?: string;
        links?: Link[];
        error?: string;
      };
      if (got.links) setLinks(got.links);
      else say(got.error ?? "The shop does not answer. Try again.");
      return got.links ? got : null;
    } catch {
      say("No connection to the shop. Nothing was sent; try again when the shop answers.");
      return null;
    } finally {
      setBusy(false);
    }
  };
  const now = new Date().toISOString();
  return (
    <section
      aria-label="Show it outside"
      className="mb-4 border-b border-hairline pb-3 print:hidden"
    >
      {me.role !== "viewer" && (
        <form
          className="flex flex-wrap items-end gap-x-3 gap-y-2"
          onSubmit={(e) => {
            e.preventDefault();
            void ask({ reader, days: Number(days), to: to.trim() || null }).then((got) => {
              if (!got) return;
              setMade(got.url ?? null);
              setTo("");
            });
          }}
        >
          <label className="flex flex-col text-sm text-soft">
            Show outside
            <select
              value={reader}
              onChange={(e) => setReader(e.target.value as Reader)}
              className={field}
            >
              {Object.entries(READERS).map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <label className="flex flex-col text-sm text-soft">
            Days
            <input
              value={days}
              inputMode="numeric"
              onChange={(e) => setDays(e.target.value.replace(/\D/g, ""))}
              className={`${field} figure w-16`}
            />
          </label>
          <label className="flex min-w-52 flex-1 flex-col text-sm text-soft">
            E-mail, where it is to be sent
            <input
              value={to}
              type="email"
              autoComplete="off"
              maxLength={120}
              onChange={(e) => setTo(e.target.value)}
              className={field}
            />
          </label>
          <Button
            type="submit"
            look="plain"
            className="min-h-12"
            disabled={busy || !(Number(days) >= 1)}
          >
            {busy ? "Sending" : to.trim() ? "Send a link" : "Make a link"}
          </Button>
        </form>
      )}
      {made && (
        <p className="mt-2 text-base" role="status">
          Shown once, copy it now:{" "}
          <a href={made} className="figure break-all underline">
            {made}
          </a>
        </p>
      )}
      {links && links.length > 0 && (
        <ul className="mt-2">
          {links.map((l) => {
            const over = l.revokedAt ?? (l.expiresAt <= now ? l.expiresAt : null);
            return (
              <li
                key={l.id}
                className="flex flex-wrap items-center gap-x-4 border-t border-dashed border-hairline py-1 text-base"
              >
                <span className={over ? "text-soft line-through" : ""}>
                  {READERS[l.reader]}
                  {l.sentTo ? `, to ${l.sentTo}` : ""}
                </span>
                <span className="text-soft">
                  {l.revokedAt
                    ? `taken back ${dateAndTime(l.revokedAt)}`
                    : `until ${dateAndTime(l.expiresAt)}`}
                  {l.seenAt ? `, opened ${dateAndTime(l.seenAt)}` : ", not opened yet"}
                </span>
                {!over && me.role !== "viewer" && (
                  <Button
                    look="quiet"
                    className="ml-auto"
                    disabled={busy}
                    onClick={() => void ask({ revoke: l.id })}
                  >
                    Take it back
                  </Button>
                )}
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}

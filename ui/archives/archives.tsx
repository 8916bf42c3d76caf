"use client";

import Link from "next/link";
import { useRef, useState, type ReactNode } from "react";
import { z } from "zod";
import { Button, ButtonLink } from "../primitives/button";
import { Facts } from "../primitives/paper";
import { useTimes } from "../settings";

const checkedSchema = z.object({
  number: z.number(),
  vehicle: z.string(),
  vin: z.string(),
  takenInAt: z.string(),
  version: z.number(),
  lines: z.number(),
  shown: z.array(z.object({ version: z.number(), head: z.string() })),
  erased: z.number(),
  papers: z.number(),
  photos: z.number(),
  /** The job in this shop's own book, where it has it. */
  here: z.object({ id: z.string(), number: z.number() }).nullable(),
});
const keptSchema = z.object({ jobId: z.string(), number: z.number() });
const problemSchema = z.object({ error: z.string() });
type Checked = z.infer<typeof checkedSchema>;

type State =
  | { is: "none" }
  | { is: "reading"; file: File }
  | { is: "refused"; file: File; why: string }
  | { is: "whole"; file: File; archive: Checked }
  | { is: "kept"; jobId: string; number: number };

/** Sends the file itself. @throws Error with the shop's own words */
async function send<T>(file: File, query: string, schema: z.ZodType<T>): Promise<T> {
  const answer = await fetch(`/api/archives${query}`, {
    method: "POST",
    headers: { "content-type": "application/zip" },
    body: file,
  }).catch(() => null);
  if (!answer) throw new Error("The shop does not answer. Choose the file again in a moment.");
  const said: unknown = await answer.json().catch(() => null);
  if (answer.ok) return schema.parse(said);
  const problem = problemSchema.safeParse(said);
  throw new Error(problem.success ? problem.data.error : "The shop could not read the file.");
}

/**
 * An archive that Hand over gave, here or elsewhere: held against its own chain, and brought in
 * where the shop lacks its job.
 */
export function Archives({ mayKeep }: { mayKeep: boolean }) {
  const [state, setState] = useState<State>({ is: "none" });
  const chooser = useRef<HTMLInputElement>(null);
  const attempt = async (file: File, work: () => Promise<State>): Promise<void> => {
    setState({ is: "reading", file });
    try {
      setState(await work());
    } catch (error) {
      setState({ is: "refused", file, why: (error as Error).message });
    }
  };
  const check = (file: File): Promise<void> =>
    attempt(file, async () => ({
      is: "whole",
      file,
      archive: await send(file, "", checkedSchema),
    }));
  const keep = (file: File): Promise<void> =>
    attempt(file, async () => ({ is: "kept", ...(await send(file, "?keep=1", keptSchema)) }));
  return (
    <main className="mx-auto w-full max-w-[860px] flex-1 px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-3">
        <h1 className="text-4xl font-semibold">Check an archive</h1>
        <Button
          look={state.is === "none" ? "act" : "plain"}
          disabled={state.is === "reading"}
          onClick={() => chooser.current?.click()}
        >
          {state.is === "none" ? "Choose a file" : "Choose another file"}
        </Button>
      </div>
      <p className="mt-2 text-lg text-soft">
        The ZIP that Hand over gives holds a job’s log with its chain, its papers and photos. Here
        it is held against itself: a word, a figure or a photo that was changed is found and named.
      </p>
      <input
        ref={chooser}
        type="file"
        accept="application/zip,.zip"
        className="sr-only"
        aria-label="Archive file"
        tabIndex={-1}
        onChange={(e) => {
          const [file] = e.target.files ?? [];
          if (file) void check(file);
          e.target.value = "";
        }}
      />
      <div className="mt-4" aria-live="polite">
        {state.is === "reading" && <p className="text-xl">Reading {state.file.name}…</p>}
        {state.is === "refused" && (
          <section className="border-l-4 border-stop bg-sheet px-4 py-3">
            <h2 className="text-2xl font-semibold text-stop">Not taken</h2>
            <p className="text-base text-soft [overflow-wrap:anywhere]">{state.file.name}</p>
            <p role="alert" className="mt-2 text-xl [overflow-wrap:anywhere]">
              {state.why}
            </p>
          </section>
        )}
        {state.is === "whole" && (
          <Whole
            archive={state.archive}
            name={state.file.name}
            onKeep={mayKeep && !state.archive.here ? () => void keep(state.file) : null}
          />
        )}
        {state.is === "kept" && (
          <section className="border-l-4 border-settled bg-sheet px-4 py-3">
            <h2 className="text-2xl font-semibold">Brought in as job {state.number}</h2>
            <p className="mt-1 text-lg text-soft">
              Every line, paper and photo is as it was there, with its seal.
            </p>
            <ButtonLink
              href={`/jobs/${state.jobId}/hand-over`}
              look="act"
              size="large"
              className="mt-3"
            >
              Open it
            </ButtonLink>
          </section>
        )}
      </div>
    </main>
  );
}

function Whole({
  archive: a,
  name,
  onKeep,
}: {
  archive: Checked;
  name: string;
  onKeep: (() => void) | null;
}) {
  const { dateAndTime } = useTimes();
  const papers = a.papers === 1 ? "1 paper" : `${a.papers} papers`;
  const photos = a.photos === 0 ? "" : a.photos === 1 ? " and a photo" : ` and ${a.photos} photos`;
  const erased = a.erased > 0 ? `; in ${a.erased} a personal part was erased on request` : "";
  return (
    <section className="border-l-4 border-settled bg-sheet px-4 py-3">
      <h2 className="text-2xl font-semibold">Whole</h2>
      <p className="mb-2 text-base text-soft [overflow-wrap:anywhere]">{name}</p>
      <Facts
        facts={[
          ["Job there", `${a.number}, taken in ${dateAndTime(a.takenInAt)}`],
          ["Vehicle", a.vehicle],
          ["VIN", a.vin],
          ["Handed over", a.version === 1 ? "once" : `${a.version} times`],
          ["Log", `${a.lines} lines, unbroken${erased}`],
          ["Holds", `${papers}${photos}, each the one the log names`],
          ...a.shown.map(({ version, head }): [string, ReactNode] => [
            `Head on report ${version}`,
            <span key={version} className="figure whitespace-normal break-all text-base">
              {head}
            </span>,
          ]),
        ]}
      />
      <p className="mt-3 text-base text-soft">
        Compare it with the report that was given away: only that says nobody wrote the whole log
        anew.
      </p>
      {a.here && (
        <p className="mt-3 text-lg">
          This shop has it:{" "}
          <Link className="font-semibold underline" href={`/jobs/${a.here.id}/hand-over`}>
            job {a.here.number}
          </Link>
        </p>
      )}
      {onKeep && (
        <Button look="act" size="large" className="mt-3" onClick={onKeep}>
          Bring it in
        </Button>
      )}
    </section>
  );
}

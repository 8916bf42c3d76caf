"use client";

import { useState, type FormEvent } from "react";
import { readCaught } from "@/core/setout";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { Field } from "../primitives/field";
import { useTimes, useSettings } from "../settings";
import { countLines, type Author, type Line } from "./lines";
import { useLineWords } from "./line-words";

/** Every line that does not go by itself, with what can be done about it. */
export function KeptLines({ onClose }: { onClose: () => void }) {
  const { outbox } = useJob();
  return (
    <Dialog open onClose={onClose} title="Kept on this tablet" wide>
      <ul className="flex flex-col gap-4 empty:hidden">
        {outbox.stuck.map(({ line, behind }) => (
          <StuckLine key={line.id} line={line} behind={behind} />
        ))}
      </ul>
      {outbox.foreign.map((f) => (
        <ForeignLines key={f.author?.id ?? "nobody"} author={f.author} waiting={f.lines} />
      ))}
      <TakenOut />
    </Dialog>
  );
}

/**
 * One line that was refused, with what can be done about it; or one that waits behind such a line.
 */
function StuckLine({ line, behind }: { line: Line; behind: Line | null }) {
  const { clockTime } = useTimes();
  const { outbox } = useJob();
  const words = useLineWords();
  const [asking, setAsking] = useState(false);
  if (behind)
    return (
      <li className="border-l-4 border-dashed border-hairline pl-3 text-base text-soft">
        {words(line.show)}, {clockTime(line.takenAt)}: held behind “{words(behind.show)}”
      </li>
    );
  return (
    <li className="border-l-4 border-stop pl-3">
      <p className="text-lg font-semibold">
        {words(line.show)}, {clockTime(line.takenAt)}
      </p>
      {line.state.kind === "refused" && <p className="text-base text-stop">{line.state.why}</p>}
      {line.send.kind === "reading" && <Correct line={line} />}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => outbox.mend(line.id)}>Send again</Button>
        {asking ? (
          <Button look="stop" onClick={() => outbox.strike(line.id)}>
            Yes, take it out
          </Button>
        ) : (
          <Button look="quiet" onClick={() => setAsking(true)}>
            Take it out
          </Button>
        )}
      </div>
    </li>
  );
}

/** A refused reading typed anew. */
function Correct({ line }: { line: Line }) {
  const { outbox, judged } = useJob();
  const { lengths } = useSettings();
  const send = line.send.kind === "reading" ? line.send : null;
  const [text, setText] = useState(send?.typed ?? "");
  const slot = judged?.solution.slots.find((s) => s.id === send?.slotId);
  if (!send || !slot) return null;
  const caught = readCaught(text, slot, 0, lengths);
  const submit = (e: FormEvent): void => {
    e.preventDefault();
    if (caught.kind !== "value") return;
    const { meant: _, ...rest } = send;
    const mended = { ...rest, typed: text.trim(), lengths, shown: caught.shown };
    outbox.mend(line.id, { send: mended, show: mended });
  };
  return (
    <form onSubmit={submit} className="mt-2">
      <Field
        label="Typed again"
        value={text}
        onChange={(e) => setText(e.target.value)}
        problem={caught.kind === "problem" ? caught.message : null}
        action={
          <Button type="submit" look="act" disabled={caught.kind !== "value"}>
            Send it so
          </Button>
        }
      />
    </form>
  );
}

/** Lines of another person: they wait for that person, or go with that person’s PIN. */
function ForeignLines({ author, waiting }: { author: Author | null; waiting: Line[] }) {
  const { clockTime } = useTimes();
  const { outbox, sendFor, me } = useJob();
  const words = useLineWords();
  const [pin, setPin] = useState("");
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<string | null>(null);
  const submit = async (e: FormEvent): Promise<void> => {
    e.preventDefault();
    if (!author) return;
    setBusy(true);
    setMessage(await sendFor(author.id, pin));
    setPin("");
    setBusy(false);
  };
  return (
    <section
      aria-label={author?.name ?? "Somebody"}
      className="mt-5 border-t border-hairline pt-4 first:mt-0 first:border-t-0 first:pt-0"
    >
      <h3 className="text-xl font-semibold">
        {countLines(waiting.length)} of {author?.name ?? "somebody"}
      </h3>
      <ul className="my-2 max-h-48 overflow-y-auto text-base text-soft" tabIndex={0}>
        {waiting.map((l) => (
          <li key={l.id}>
            {clockTime(l.takenAt)} {words(l.show)}
            {l.state.kind === "refused" && <span className="text-stop"> {l.state.why}</span>}
          </li>
        ))}
      </ul>
      {author ? (
        <form onSubmit={(e) => void submit(e)}>
          <Field
            label={`PIN of ${author.name}: ${waiting.length === 1 ? "it goes" : "they go"} under that name`}
            type="password"
            inputMode="numeric"
            autoComplete="off"
            value={pin}
            onChange={(e) => setPin(e.target.value)}
            problem={message}
            action={
              <Button type="submit" look="act" disabled={pin === "" || busy}>
                {waiting.length === 1 ? "Send it" : "Send them"}
              </Button>
            }
          />
        </form>
      ) : (
        <Button onClick={() => outbox.claim()}>They are mine: send them as {me.name}</Button>
      )}
    </section>
  );
}

/** Lines that were taken out: readable as long as this tablet keeps them. */
function TakenOut() {
  const { clockTime } = useTimes();
  const { outbox } = useJob();
  const words = useLineWords();
  const out = outbox.lines.filter((l) => l.state.kind === "struck");
  if (out.length === 0) return null;
  return (
    <section className="mt-5 border-t border-hairline pt-4">
      <h3 className="text-base font-semibold text-soft">Taken out on this tablet</h3>
      <ul className="text-base text-soft line-through">
        {out.map((l) => (
          <li key={l.id}>
            {clockTime(l.takenAt)} {words(l.show)}
          </li>
        ))}
      </ul>
    </section>
  );
}

"use client";

import { useState, useTransition } from "react";
import { Button } from "../primitives/button";
import { Field } from "../primitives/field";
import { NewPin } from "./person-dialog";

/** The first page of a new shop: nobody is entered yet, so whoever sets it up becomes its lead. */
export function OpenShop({
  open,
}: {
  open: (person: { name: string; initials: string }, pin: string) => Promise<{ message: string }>;
}) {
  const [name, setName] = useState("");
  const [initials, setInitials] = useState("");
  const [pin, setPin] = useState("");
  const [again, setAgain] = useState("");
  const [message, setMessage] = useState<string | null>(null);
  const [busy, start] = useTransition();
  const ready = name.trim().length >= 3 && initials.length >= 2 && pin.length >= 6 && pin === again;
  return (
    <form
      aria-label="Open the shop"
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) start(async () => setMessage((await open({ name, initials }, pin)).message));
      }}
    >
      <h2 className="text-3xl font-semibold">This shop is new.</h2>
      <p className="text-lg">
        Whoever is entered first leads it: enters the others, writes the rules. Then come vehicles,
        sheets and kit, written in the app or taken from files.
      </p>
      <div className="grid gap-x-6 sm:grid-cols-[1fr_120px]">
        <Field
          label="Your name"
          autoFocus
          value={name}
          maxLength={60}
          onChange={(e) => setName(e.target.value)}
        />
        <Field
          label="Initials"
          value={initials}
          maxLength={3}
          onChange={(e) => setInitials(e.target.value.toUpperCase())}
        />
      </div>
      <NewPin pin={pin} again={again} onPin={setPin} onAgain={setAgain} />
      {message && (
        <p role="alert" className="text-lg text-stop">
          {message}
        </p>
      )}
      <Button type="submit" look="act" size="large" disabled={!ready || busy}>
        {busy ? "Opening" : "Open the shop"}
      </Button>
      <p className="text-base text-soft">
        To look around first, run <code className="figure">npm run demo</code>: a made-up shop,
        everything simulated.
      </p>
    </form>
  );
}

"use client";

import { useActionState } from "react";
import { Button } from "../primitives/button";

type Props = { code: string; join: (code: string) => Promise<{ message: string }> };

/** The one button by which a phone joins the stand. */
export function Join({ code, join }: Props) {
  const [answer, act, busy] = useActionState(() => join(code), { message: "" });
  return (
    <main className="mx-auto flex min-h-dvh max-w-md flex-col justify-center gap-6 px-5">
      <h1 className="text-4xl font-semibold leading-tight">Join at the stand</h1>
      <p className="text-xl text-soft">
        This phone then shows the next act and takes readings. The code works once, within five
        minutes.
      </p>
      {answer.message && (
        <p role="alert" className="text-lg text-stop">
          {answer.message}
        </p>
      )}
      <form action={act}>
        <Button type="submit" look="act" size="large" className="w-full" disabled={busy}>
          Join
        </Button>
      </form>
    </main>
  );
}

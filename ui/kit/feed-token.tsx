"use client";

import { useState } from "react";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

type Props = {
  instrument: { id: string; name: string } | null;
  make: (
    instrumentId: string,
  ) => Promise<{ ok: true; token: string } | { ok: false; message: string }>;
  revoke: (instrumentId: string) => Promise<{ ok: true } | { ok: false; message: string }>;
  onClose: () => void;
};

/** Lets an instrument post its readings: a token, shown once, and what a post looks like. */
export function FeedToken({ instrument, make, revoke, onClose }: Props) {
  return (
    <Dialog
      open={instrument !== null}
      onClose={onClose}
      title="Readings posted by the instrument"
      wide
    >
      {instrument && <Body instrument={instrument} make={make} revoke={revoke} />}
    </Dialog>
  );
}

function Body({
  instrument,
  make,
  revoke,
}: { instrument: { id: string; name: string } } & Pick<Props, "make" | "revoke">) {
  const [token, setToken] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const ask = async (): Promise<void> => {
    const answer = await make(instrument.id).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Try again when it is back.",
    }));
    if (answer.ok) setToken(answer.token);
    else setMessage(answer.message);
  };
  const end = async (): Promise<void> => {
    const answer = await revoke(instrument.id).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. The token still works.",
    }));
    setToken(null);
    setMessage(answer.ok ? "Its token no longer works." : answer.message);
  };
  return (
    <>
      <p className="mb-3 text-lg">
        {instrument.id}, {instrument.name}, may post readings by itself, in your name, each once by
        its own number. Impossible values are refused with what was probably meant.
      </p>
      <pre tabIndex={0} className="figure mb-3 overflow-x-auto bg-wash p-3 text-sm">{`POST /api/feed
Authorization: Bearer ${token ?? "<token>"}
Content-Type: application/json

{ "job": 1047, "readings": [{ "id": "7", "slot": "panel-rl", "value": "5.472 m" }] }`}</pre>
      <p className="mb-3 text-base text-soft">Or text/csv with the columns job, id, slot, value.</p>
      {message && (
        <p role="alert" className="mb-3 text-lg text-stop">
          {message}
        </p>
      )}
      {token ? (
        <p className="text-base font-semibold text-loose">
          Copy the token now: it is not shown again. An earlier token of this instrument no longer
          works.
        </p>
      ) : (
        <div className="flex flex-wrap gap-2">
          <Button look="act" size="large" onClick={() => void ask()}>
            Make a token
          </Button>
          <Button look="quiet" size="large" onClick={() => void end()}>
            Revoke its token
          </Button>
        </div>
      )}
    </>
  );
}

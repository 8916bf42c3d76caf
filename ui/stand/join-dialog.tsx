"use client";

import { useEffect, useState } from "react";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

type Props = {
  open: boolean;
  onClose: () => void;
  code: (
    jobId: string,
  ) => Promise<{ ok: true; path: string; expiresAt: string } | { ok: false; message: string }>;
  squares: (text: string) => Promise<boolean[][]>;
};

/** Lets a phone join at the stand: a code that works once, for a few minutes. */
export function JoinDialog({ open, onClose, code, squares }: Props) {
  return (
    <Dialog open={open} onClose={onClose} title="A phone at the stand">
      {open && <Code code={code} squares={squares} />}
    </Dialog>
  );
}

function Code({ code, squares }: Pick<Props, "code" | "squares">) {
  const { head } = useJob();
  const [round, setRound] = useState(0);
  const [shown, setShown] = useState<{ link: string; grid: boolean[][]; until: number } | null>(
    null,
  );
  const [message, setMessage] = useState<string | null>(null);
  const [left, setLeft] = useState(0);
  useEffect(() => {
    let live = true;
    void (async () => {
      const answer = await code(head.id).catch(() => ({
        ok: false as const,
        message: "The shop does not answer. Try again when it is back.",
      }));
      if (!live) return;
      if (!answer.ok) return setMessage(answer.message);
      const link = `${location.origin}${answer.path}`;
      const grid = await squares(link);
      if (live) setShown({ link, grid, until: Date.parse(answer.expiresAt) });
    })();
    return () => void (live = false);
  }, [code, squares, head.id, round]);
  useEffect(() => {
    const timer = setInterval(
      () => setLeft(shown ? Math.max(0, Math.round((shown.until - Date.now()) / 1000)) : 0),
      500,
    );
    return () => clearInterval(timer);
  }, [shown]);
  if (message)
    return (
      <p role="alert" className="text-lg text-stop">
        {message}
      </p>
    );
  if (!shown) return <p className="py-10 text-center text-lg text-soft">Making a code …</p>;
  const size = shown.grid.length;
  return (
    <>
      <p className="text-lg">
        Scan it with the phone’s camera. It shows the next act, takes readings, and sees this job
        only.
      </p>
      <svg
        viewBox={`-3 -3 ${size + 6} ${size + 6}`}
        role="img"
        aria-label="Code to scan"
        shapeRendering="crispEdges"
        className="mx-auto my-3 w-full max-w-[300px]"
      >
        <rect x={-3} y={-3} width={size + 6} height={size + 6} fill="#fff" />
        {shown.grid.flatMap((row, y) =>
          row.map((dark, x) =>
            dark ? (
              <rect key={`${x} ${y}`} x={x} y={y} width={1.02} height={1.02} fill="#000" />
            ) : null,
          ),
        )}
      </svg>
      <p className="text-base text-soft">
        Works once, for {Math.floor(left / 60)}:{String(left % 60).padStart(2, "0")} more. Or type:{" "}
        <span className="figure break-all text-sm" data-join="">
          {shown.link}
        </span>
      </p>
      <Button look="plain" className="mt-3" onClick={() => setRound(round + 1)}>
        A new code
      </Button>
    </>
  );
}

"use client";

import { useRouter } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import { runOf } from "@/core/job";
import type { DriftSight } from "@/core/setout";
import { formatChance, formatNumber } from "@/core/units";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Mark } from "../primitives/marks";
import { draftPlace, useArmed } from "../set-out/use-catcher";
import { useProof } from "./proof-worker";

const MINUTE_MS = 60_000;
/** Until then nobody asks how old a proof is. */
const FRESH_H = 0.75;

/** Sends to Set out with a reading in hand. */
function useGoRead(): (slotId: string) => void {
  const { head, target } = useJob();
  const [, arm] = useArmed(draftPlace(head.id, target));
  const router = useRouter();
  return (slotId) => {
    arm(slotId);
    router.push(`/jobs/${head.id}/set-out`);
  };
}

/**
 * What the proof is worth at this moment: how old it is before the vehicle looks, and what bears witness
 * of it afterwards.
 *
 * @param sights how each stand of the job was seen to drift in others, by its name
 */
export function ProofNow({ sights }: { sights: Readonly<Record<string, DriftSight[]>> }) {
  const { events, ground, target } = useJob();
  if (!target) return null;
  const passed = runOf(ground, events).state.status === "passed";
  return passed ? (
    <WitnessCard targetId={target.id} />
  ) : (
    <AgeNote targetId={target.id} sights={sights[ground.stand.id] ?? NONE} />
  );
}

const NONE: readonly DriftSight[] = [];

function AgeNote({ targetId, sights }: { targetId: string; sights: readonly DriftSight[] }) {
  const { ground, events, me } = useJob();
  const go = useGoRead();
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), MINUTE_MS);
    return () => clearInterval(timer);
  }, []);
  const age = useProof(
    useCallback(
      (proof) => proof.age(ground, events, targetId, [...sights], now),
      [ground, events, targetId, sights, now],
    ),
  );
  if (!age || age.hours < FRESH_H) return null;
  const [h, min] = [Math.floor(age.hours), Math.round((age.hours % 1) * 60)];
  const old = h > 0 ? `${h} h ${min} min` : `${min} min`;
  const { restore } = age;
  return (
    <section
      aria-label="Age of the proof"
      className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b-2 border-dashed border-loose bg-sheet px-4 py-2"
    >
      <p className="min-w-0 flex-1 text-lg leading-snug">
        Proved {old} ago. With what this stand drifts, the chance that it still stands inside is{" "}
        <b className="figure font-semibold">{formatChance(age.chance)}</b>.
        {restore && restore.chance > age.chance && (
          <>
            {" "}
            One reading, {restore.name}, makes it{" "}
            <b className="figure font-semibold">{formatChance(restore.chance)}</b>.
          </>
        )}
      </p>
      {restore && me.role !== "viewer" && (
        <Button look="plain" onClick={() => go(restore.slotId)}>
          Read it
        </Button>
      )}
    </section>
  );
}

function WitnessCard({ targetId }: { targetId: string }) {
  const { ground, events, me } = useJob();
  const go = useGoRead();
  const witness = useProof(
    useCallback((proof) => proof.witness(ground, events, targetId), [ground, events, targetId]),
  );
  if (!witness) return null;
  const { asked, taken, finds, stood, chance, share } = witness;
  const left = asked.filter((a) => !taken.includes(a.id));
  const of100 = (v: number): string => `${formatNumber(100 * v)} of 100`;
  return (
    <section
      aria-label="Witness"
      className={`mx-3 mb-3 border-l-8 bg-sheet p-4 lg:mx-5 lg:mb-5 ${stood === null ? "border-hairline" : stood ? "border-settled" : "border-stop"}`}
    >
      <h2 className="flex items-center gap-3 text-xl font-semibold">
        <Mark state={stood === null ? "open" : stood ? "settled" : "stop"} size={18} />
        {stood === null
          ? "Did it stand while the vehicle looked?"
          : stood
            ? "It stood while the vehicle looked"
            : "It no longer stands where it was proved"}
      </h2>
      <p className="mt-1 text-lg leading-snug">
        {stood === null
          ? `Before anything is touched: ${asked.length === 1 ? "one reading" : `${asked.length} readings`} would show ${of100(finds)} knocks.`
          : stood
            ? `${taken.length === 1 ? "One reading" : `${taken.length} readings`} that would show ${of100(share)} knocks showed none: ${formatChance(chance)} chance that it stood inside its limits.`
            : "Nobody knows since when: set it out and let the vehicle look again."}
      </p>
      {stood !== false && left.length > 0 && me.role !== "viewer" && (
        <div className="mt-3 flex flex-wrap gap-2">
          {left.map(({ id, name }) => (
            <Button key={id} look="plain" onClick={() => go(id)}>
              Read {name}
            </Button>
          ))}
        </div>
      )}
    </section>
  );
}

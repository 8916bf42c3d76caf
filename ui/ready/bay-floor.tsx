"use client";

import { useState, type FormEvent } from "react";
import { bayStandX, measuredOf } from "@/core/job";
import { bayFloorsOf } from "@/core/job/parked";
import { bayFloorAge, judgeMeasure, valuesFromBay, type BayFloor } from "@/core/ready";
import type { Measure } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Field } from "../primitives/field";

const age = (days: number): string =>
  days < 1 ? "today" : days < 2 ? "yesterday" : `${Math.floor(days)} days ago`;

/**
 * A bay's floor need not be read for every job: one that is kept can be taken, and what was read
 * here can be kept.
 */
export function BayFloors({
  itemId,
  measure,
  onTaken,
}: {
  itemId: string;
  measure: Measure;
  onTaken: () => void;
}) {
  const { ground, events, write, me } = useJob();
  const now = new Date().toISOString();
  const floors = bayFloorsOf(ground, events);
  const read = measuredOf(events).get(itemId);
  if (me.role === "viewer" || (floors.length === 0 && !read)) return null;
  // A bay keeps the floor before the vehicle; a stand behind it or beside it stands elsewhere.
  const standX = bayStandX(ground, events);
  if (standX === null) return null;
  const take = (f: BayFloor, days: number): void => {
    const values = valuesFromBay(f, ground.vehicle, standX);
    const taken = {
      kind: "measured" as const,
      itemId,
      values,
      typed: {},
      bay: { name: f.bay, days: Math.max(0, days) },
    };
    // A floor that is in order needs nobody to say so again.
    const fine = judgeMeasure(measure, values, ground.vehicle).ok === true;
    const check = { kind: "check", stage: "ready", itemId, outcome: "fine", reason: null } as const;
    write(taken, ...(fine ? [check] : []));
    if (fine) onTaken();
  };
  return (
    <div className="mt-4 flex flex-col gap-3 border-t border-hairline pt-3">
      {floors.map((f) => {
        const days = bayFloorAge(f, now);
        return (
          <Button key={f.bay} className="self-start" onClick={() => take(f, days)}>
            Take the floor of {f.bay}, read {age(days)}
          </Button>
        );
      })}
      {read?.body.bay && (
        <p className="text-base text-soft">
          Taken from {read.body.bay.name}, read {age(read.body.bay.days)}; it counts with more
          uncertainty than one read here.
        </p>
      )}
      {read && !read.body.bay && <KeepFloor />}
    </div>
  );
}

/** Keeps what was read here for the next job in this bay. */
function KeepFloor() {
  const { head, actions } = useJob();
  const [bay, setBay] = useState("");
  const [answer, setAnswer] = useState<{ kept: boolean; words: string } | null>(null);
  const submit = async (e: FormEvent): Promise<void> => {
    e.preventDefault();
    const kept = await actions.keepFloor(head.id, bay).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Nothing was kept.",
    }));
    setAnswer({
      kept: kept.ok,
      words: kept.ok ? `Kept for ${bay.trim()}, for 90 days.` : kept.message,
    });
  };
  return (
    <form onSubmit={(e) => void submit(e)}>
      <Field
        label="Keep this floor for a bay: its wheel marks are where these tyres stand"
        placeholder="Bay 1"
        value={bay}
        onChange={(e) => setBay(e.target.value)}
        hint={answer?.kept ? answer.words : null}
        problem={answer && !answer.kept ? answer.words : null}
        action={
          <Button type="submit" disabled={bay.trim().length < 2}>
            Keep it
          </Button>
        }
      />
    </form>
  );
}

"use client";

import { useState } from "react";
import { KINDS, SYSTEMS, type SystemId } from "@/core/owed";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

const METHODS = ["static", "dynamic", "learn"] as const;
type Method = (typeof METHODS)[number];

/**
 * Puts a calibration on the job that no rule asks for; the reason and the name go on the record.
 */
export function AddLine({
  open,
  onClose,
  onAdd,
}: {
  open: boolean;
  onClose: () => void;
  onAdd: (system: SystemId, method: Method, reason: string) => void;
}) {
  const [system, setSystem] = useState<SystemId>("surround-view");
  const [method, setMethod] = useState<Method>("static");
  const [reason, setReason] = useState("");
  const enough = reason.trim().length >= 3;
  return (
    <Dialog open={open} onClose={onClose} title="Add a calibration">
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          if (!enough) return;
          onAdd(system, method, reason.trim());
          setReason("");
          onClose();
        }}
      >
        <label className="flex flex-col gap-1 text-sm font-semibold text-soft">
          Which system
          <select
            value={system}
            onChange={(e) => setSystem(e.target.value as SystemId)}
            className="min-h-14 rounded-md border-2 border-hairline bg-sheet px-3 text-lg font-normal text-ink"
          >
            {(Object.keys(SYSTEMS) as SystemId[]).map((s) => (
              <option key={s} value={s}>
                {SYSTEMS[s]}
              </option>
            ))}
          </select>
        </label>
        <div role="group" aria-label="How" className="flex gap-2">
          {METHODS.map((m) => (
            <button
              key={m}
              type="button"
              aria-pressed={method === m}
              onClick={() => setMethod(m)}
              className={`min-h-14 flex-1 rounded-md border-2 text-lg font-semibold ${method === m ? "border-act bg-act text-on-act" : "border-hairline"}`}
            >
              {KINDS[m]}
            </button>
          ))}
        </div>
        <label className="flex flex-col gap-1 text-sm font-semibold text-soft">
          Why, and by whose word
          <input
            value={reason}
            maxLength={400}
            onChange={(e) => setReason(e.target.value)}
            className="min-h-14 border-b-2 border-ink bg-transparent px-1 text-lg font-normal text-ink outline-none focus:border-act"
          />
        </label>
        <Button type="submit" look="act" size="large" disabled={!enough}>
          Add it
        </Button>
      </form>
    </Dialog>
  );
}

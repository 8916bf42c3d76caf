"use client";

import { patiently } from "../primitives/patiently";
import dynamic from "next/dynamic";
import { useEffect, useRef, useState } from "react";
import type { SlipLine } from "@/core/job";
import { Mark } from "../primitives/marks";
import { useJob } from "./job-store";
import { useTimes } from "../settings";

const LATER = patiently(() => import("./later"));
const LineDialog = dynamic(() => LATER().then((m) => m.LineDialog));

/**
 * The slip: each settled fact with time, instrument and initials. It is the report in the making.
 */
export function Slip() {
  const { clockTime } = useTimes();
  const { slip, head, ground } = useJob();
  const [open, setOpen] = useState<SlipLine | null>(null);
  const end = useRef<HTMLDivElement>(null);
  const count = slip.length;
  useEffect(() => {
    end.current?.scrollIntoView({ block: "nearest" });
  }, [count]);
  return (
    <aside aria-label="Slip" className="flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-0 flex-1 flex-col overflow-y-auto bg-sheet px-3 pt-3">
        <p className="flex justify-between border-b-2 border-ink pb-1 text-sm font-semibold">
          <span>Job {head.number}</span>
          <span>{ground.vehicle.model}</span>
        </p>
        <ol className="text-[15px] leading-snug">
          {slip.map((line) => (
            <li key={line.id} className="border-b border-dashed border-hairline">
              <button
                type="button"
                onClick={() => setOpen(line)}
                className="block w-full py-1.5 text-left hover:bg-wash"
              >
                <span className="flex items-start gap-2">
                  <span className="pt-1">
                    <Mark state={line.state} size={11} />
                  </span>
                  <span
                    className={`min-w-0 flex-1 break-words ${line.state === "struck" ? "text-soft line-through" : ""}`}
                  >
                    <span className="text-soft">{line.label}</span>{" "}
                    <span className="font-semibold">{line.value}</span>
                  </span>
                </span>
                {line.note && (
                  <span
                    className={`block pl-5 text-sm ${line.state === "settled" ? "text-soft" : "text-loose"}`}
                  >
                    {line.note}
                  </span>
                )}
                <span className="block pl-5 text-xs text-soft">
                  {clockTime(line.at)} {line.initials}
                  {line.instrument && ` · ${line.instrument}`}
                </span>
              </button>
            </li>
          ))}
        </ol>
        <div ref={end} className="h-3 shrink-0" />
      </div>
      <div className="slip-edge shrink-0" />
      {open && <LineDialog line={open} onClose={() => setOpen(null)} />}
    </aside>
  );
}

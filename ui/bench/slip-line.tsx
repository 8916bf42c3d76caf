"use client";

import { useState } from "react";
import type { SlipLine } from "@/core/job";
import { slotValue } from "@/core/setout";
import { formatNumber, formatQuantity } from "@/core/units";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { useTimes, useSettings } from "../settings";
import { useJob } from "./job-store";

/** Where a line came from, and how to strike it. */
export function LineDialog({ line, onClose }: { line: SlipLine; onClose: () => void }) {
  const { dateAndTime } = useTimes();
  const { events, judged, ground, write, me } = useJob();
  const { lengths } = useSettings();
  const [reason, setReason] = useState("");
  const event = events.find((e) => e.id === line.eventId);
  if (!event) return null;

  const facts: [string, string][] = [
    ["When", dateAndTime(event.at)],
    ["Who", event.by.name],
  ];
  if (event.body.kind === "reading") {
    const { body } = event;
    const slot = judged?.solution.slots.find((s) => s.id === body.slotId);
    const result = judged?.solution.readings.find((r) => r.id === event.id)?.result;
    const instrument = ground.instruments.find((i) => i.id === body.instrumentId);
    const angle = slot?.quantity.dimension === "angle";
    const show = (v: number): string =>
      angle ? formatQuantity(v, "deg", 2) : formatQuantity(v, "mm", 1);
    facts.push(
      ["Typed", body.typed],
      ["Instrument", instrument ? `${instrument.id}, ${instrument.name}` : body.instrumentId],
      ["Its uncertainty", `± ${show(body.sigma)}`],
    );
    if (slot) facts.unshift(["Value", slotValue(slot, body.shown, lengths)]);
    if (result)
      facts.push(
        ["Off from the others", show(-result.residual)],
        ["Checked by the others", `${formatNumber(result.redundancy * 100)} %`],
        [
          "A slip shows from",
          result.redundancy > 0.03 ? show(result.smallestDetectable) : "nothing checks it yet",
        ],
      );
  }
  return (
    <Dialog open onClose={onClose} title={line.label}>
      <p className="mb-3 text-xl font-semibold">{line.value}</p>
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1">
        {facts.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {line.note && (
        <p className={`mt-3 ${line.state === "settled" ? "text-soft" : "text-loose"}`}>
          {line.note}
        </p>
      )}
      {line.strikable && me.role !== "viewer" && (
        <form
          className="mt-5 flex flex-col gap-3 border-t border-hairline pt-4"
          onSubmit={(e) => {
            e.preventDefault();
            write({ kind: "strike", target: line.eventId, reason: reason.trim() });
            onClose();
          }}
        >
          <label className="text-sm font-semibold text-soft" htmlFor="strike-reason">
            Strike this line, because
          </label>
          <input
            id="strike-reason"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            maxLength={400}
            className="min-h-14 border-b-2 border-ink bg-transparent px-1 text-lg outline-none focus:border-act"
          />
          <p className="text-sm text-soft">
            A struck line stays readable, on the slip and in the record.
          </p>
          <Button type="submit" look="stop" size="large" disabled={reason.trim().length < 3}>
            Strike the line
          </Button>
        </form>
      )}
    </Dialog>
  );
}

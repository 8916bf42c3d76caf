"use client";

import { useState } from "react";
import { FACTS, readReport, type Fact, type Field, type ToolMapping } from "@/core/tool-report";
import { formatNumber } from "@/core/units";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

type Draft = {
  name: string;
  labels: Partial<Record<Fact, string>>;
  passed: string;
  whole: string;
  units: Partial<
    Record<"yaw" | "pitch" | "roll", { unit: "deg" | "arcmin" | "mrad"; flipped: boolean }>
  >;
};

const ANGLES = ["yaw", "pitch", "roll"] as const;
const PLUS = { yaw: "vehicle left", pitch: "nose down", roll: "rolled right" } as const;

const draftOf = (m: ToolMapping | null): Draft => ({
  name: m?.name ?? "",
  labels: m
    ? Object.fromEntries(
        (Object.keys(FACTS) as Fact[]).flatMap((f) => (m[f] ? [[f, m[f].label]] : [])),
      )
    : {},
  passed: m?.outcome.passed ?? "",
  whole: String(m?.quality?.of ?? 100),
  units: Object.fromEntries(
    ANGLES.flatMap((a) => (m?.[a] ? [[a, { unit: m[a].unit, flipped: m[a].flipped }]] : [])),
  ),
});

/** A name the shop's books can carry. */
const idOf = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 40) || "tool";

function mappingOf(d: Draft): ToolMapping | null {
  const { labels } = d;
  if (!labels.outcome || d.passed.trim() === "" || d.name.trim().length < 2) return null;
  const angle = (a: (typeof ANGLES)[number]) =>
    labels[a] && {
      [a]: { label: labels[a], ...(d.units[a] ?? { unit: "deg" as const, flipped: false }) },
    };
  return {
    id: idOf(d.name),
    name: d.name.trim(),
    outcome: { label: labels.outcome, passed: d.passed.trim() },
    ...(labels.quality && { quality: { label: labels.quality, of: Number(d.whole) || 100 } }),
    ...angle("yaw"),
    ...angle("pitch"),
    ...angle("roll"),
    ...(labels.reason && { reason: { label: labels.reason } }),
    ...(labels.vin && { vin: { label: labels.vin } }),
  };
}

/** Once for each tool: which line of its report says what. */
export function TeachReport({
  open,
  name,
  fields,
  known,
  onClose,
  onTaught,
}: {
  open: boolean;
  name: string;
  fields: readonly Field[];
  known: ToolMapping | null;
  onClose: () => void;
  onTaught: (mapping: ToolMapping) => void;
}) {
  const [draft, setDraft] = useState(() => draftOf(known));
  const [problem, setProblem] = useState<string | null>(null);
  const mapping = mappingOf(draft);
  const read = mapping && readReport(fields, mapping);
  const pick = (fact: Fact, label: string): void => {
    const labels = { ...draft.labels, [fact]: label || undefined };
    const value = fields.find((f) => f.label === label)?.value ?? "";
    setDraft({ ...draft, labels, ...(fact === "outcome" ? { passed: value } : {}) });
  };
  const keep = async (): Promise<void> => {
    if (!mapping) return;
    const response = await fetch("/api/tool-reports/mappings", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(mapping),
    });
    const body = (await response.json().catch(() => ({}))) as {
      mapping?: ToolMapping;
      error?: string;
    };
    if (body.mapping) onTaught(body.mapping);
    else setProblem(body.error ?? "The shop does not answer. Try again.");
  };
  const small = "min-h-12 rounded-md border border-hairline bg-sheet px-2 text-base";
  return (
    <Dialog open={open} onClose={onClose} title="Which line says what?">
      <p className="mb-3 text-base text-soft">
        {fields.length === 0
          ? `Nothing in ${name} looks like a name with a value beside it. Type the result instead.`
          : `Taught once, ${name} and every report like it is read by itself from then on.`}
      </p>
      {fields.length > 0 && (
        <form
          className="flex flex-col gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            void keep();
          }}
        >
          <div className="flex max-h-[52dvh] flex-col gap-2 overflow-y-auto pr-1">
            <label className="flex items-center gap-3 text-base">
              <span className="w-36 shrink-0">Tool or report</span>
              <input
                aria-label="Name of the tool"
                value={draft.name}
                maxLength={60}
                onChange={(e) => setDraft({ ...draft, name: e.target.value })}
                className={`${small} flex-1`}
              />
            </label>
            {(Object.keys(FACTS) as Fact[]).map((fact) => (
              <div key={fact} className="flex flex-wrap items-center gap-3 text-base">
                <span className="w-36 shrink-0">{FACTS[fact]}</span>
                <select
                  aria-label={FACTS[fact]}
                  value={draft.labels[fact] ?? ""}
                  onChange={(e) => pick(fact, e.target.value)}
                  className={`${small} min-w-0 flex-1`}
                >
                  <option value="">
                    {fact === "outcome" ? "choose its line" : "it does not say"}
                  </option>
                  {fields.map((f) => (
                    <option key={f.label} value={f.label}>
                      {f.label}: {f.value}
                    </option>
                  ))}
                </select>
                {fact === "outcome" && draft.labels.outcome && (
                  <label className="flex w-full items-center gap-2 pl-[9.75rem]">
                    where it passed it says
                    <input
                      aria-label="What it says where it passed"
                      value={draft.passed}
                      onChange={(e) => setDraft({ ...draft, passed: e.target.value })}
                      className={`${small} w-32`}
                    />
                  </label>
                )}
                {fact === "quality" && draft.labels.quality && (
                  <label className="flex items-center gap-2">
                    out of
                    <input
                      aria-label="Whole of the quality"
                      inputMode="decimal"
                      value={draft.whole}
                      onChange={(e) => setDraft({ ...draft, whole: e.target.value })}
                      className={`${small} w-20`}
                    />
                  </label>
                )}
                {ANGLES.filter((a) => a === fact && draft.labels[a]).map((a) => {
                  const now = draft.units[a] ?? { unit: "deg" as const, flipped: false };
                  const put = (change: Partial<typeof now>): void =>
                    setDraft({ ...draft, units: { ...draft.units, [a]: { ...now, ...change } } });
                  return (
                    <span key={a} className="flex w-full items-center gap-3 pl-[9.75rem]">
                      <select
                        aria-label={`Unit of ${a}`}
                        value={now.unit}
                        onChange={(e) => put({ unit: e.target.value as typeof now.unit })}
                        className={small}
                      >
                        <option value="deg">degrees</option>
                        <option value="arcmin">minutes</option>
                        <option value="mrad">mrad</option>
                      </select>
                      <label className="flex min-h-12 items-center gap-2">
                        <input
                          type="checkbox"
                          checked={!now.flipped}
                          onChange={(e) => put({ flipped: !e.target.checked })}
                          className="size-6"
                        />
                        plus is {PLUS[a]}
                      </label>
                    </span>
                  );
                })}
              </div>
            ))}
          </div>
          <p role="status" className={`text-base ${read && !read.ok ? "text-stop" : "text-soft"}`}>
            {problem ??
              (!read
                ? "Name the tool, and choose the line that says whether it passed."
                : !read.ok
                  ? read.problem
                  : read.result.passed
                    ? `This one then passed, quality ${formatNumber(read.result.qualityPercent)} %.`
                    : `This one then was refused: ${read.result.reason}`)}
          </p>
          <div className="flex justify-end gap-2">
            <Button type="button" look="quiet" onClick={onClose}>
              Back
            </Button>
            <Button type="submit" look="act" disabled={!read?.ok}>
              Keep it so
            </Button>
          </div>
        </form>
      )}
    </Dialog>
  );
}

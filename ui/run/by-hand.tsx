"use client";

import { useState, type ReactNode } from "react";
import { REFUSAL_CODES, type RefusalCode, type RunState } from "@/core/run";
import { formatNumber } from "@/core/units";
import { readReport, type Field, type ToolMapping } from "@/core/tool-report";
import type { SheetStep } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { PhotoButton } from "../photos/photo-button";
import { Button } from "../primitives/button";
import { TeachReport } from "./teach-report";
import type { RunCommand } from "./use-run";

type Of<K extends SheetStep["kind"]> = Extract<SheetStep, { kind: K }>;
type Props = {
  busy: string | null;
  command: (c: RunCommand, quiet?: boolean) => Promise<boolean>;
};

const field =
  "min-h-14 border-b-4 border-act bg-sheet px-2 text-xl outline-none placeholder:text-chalk";

/** A figure as it is typed, with a point or a comma; null where it is none. */
const figureOf = (text: string): number | null => {
  const t = text.trim().replace(",", ".").replace("\u2212", "-");
  return /^[-+]?\d*\.?\d+$/.test(t) ? Number(t) : null;
};

const KEPT = "iridel.own-tool";
type Tool = { name: string; serial: string; software: string };
function lastTool(): Tool {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? "") as Tool;
  } catch {
    return { name: "", serial: "", software: "" };
  }
}

/** Which tool of the shop's own is used; it was used here before, it is offered again. */
export function ConnectByHand({ busy, command, onBack }: Props & { onBack: () => void }) {
  const [tool, setTool] = useState(lastTool);
  const [volts, setVolts] = useState("");
  const typed = volts.trim() === "" ? null : figureOf(volts);
  const ready = tool.name.trim().length >= 2 && (volts.trim() === "" || typed !== null);
  const input = (key: keyof Tool, label: string, width: string): ReactNode => (
    <input
      aria-label={label}
      placeholder={label}
      value={tool[key]}
      maxLength={40}
      onChange={(e) => setTool({ ...tool, [key]: e.target.value })}
      className={`${field} ${width}`}
    />
  );
  return (
    <NextBar
      say="Plug in the shop’s own tool and open the vehicle on it."
      detail={
        <>
          Nothing of it is read by itself: what it shows is typed, photographed, or brought in as
          its report.
          <form
            className="mt-2 flex flex-wrap items-center gap-2 text-ink"
            onSubmit={(e) => {
              e.preventDefault();
              if (!ready) return;
              localStorage.setItem(KEPT, JSON.stringify(tool));
              void command({ type: "connect-by-hand", tool, volts: typed });
            }}
          >
            {input("name", "Tool", "w-40")}
            {input("serial", "Serial", "w-28")}
            {input("software", "Software", "w-28")}
            <input
              aria-label="Supply it shows"
              placeholder="Volts"
              inputMode="decimal"
              value={volts}
              onChange={(e) => setVolts(e.target.value)}
              className={`${field} figure w-20`}
            />
            <Button type="button" look="quiet" size="large" onClick={onBack}>
              Back
            </Button>
            <Button type="submit" look="act" size="large" disabled={busy !== null || !ready}>
              It is open
            </Button>
          </form>
        </>
      }
    />
  );
}

const UNITS = { mm: ["mm", "cm", "in"], V: ["V"], deg: ["deg"] } as const;
const UNIT_NAME = { mm: "mm", cm: "cm", in: "in", V: "V", deg: "°" } as const;

/** A value that the shop's own tool shows, in the tool's own unit. */
export function TypedValue({
  step,
  state,
  busy,
  command,
  onPass,
}: Props & { step: Of<"compare">; state: RunState; onPass: () => void }) {
  const [text, setText] = useState("");
  const [unit, setUnit] = useState<keyof typeof UNIT_NAME>(UNITS[step.unit][0]);
  const value = figureOf(text);
  const outside = state.values[step.id];
  return (
    <NextBar
      tone={outside ? "loose" : "act"}
      say={step.say}
      detail={
        outside
          ? state.message
          : `Look it up on your tool, among its live or stored data. The book allows ${formatNumber(step.min, step.unit === "mm" ? 0 : 1)} to ${formatNumber(step.max, step.unit === "mm" ? 0 : 1)} ${UNIT_NAME[step.unit]}.`
      }
    >
      <form
        className="flex flex-wrap items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (value === null) return;
          void command({ type: "type-value", step: step.id, value, unit }).then(() => setText(""));
        }}
      >
        {outside && (
          <Button type="button" look="quiet" size="large" onClick={onPass}>
            Let it pass
          </Button>
        )}
        <input
          autoFocus
          data-catcher=""
          aria-label="Value on the tool"
          inputMode="decimal"
          value={text}
          onChange={(e) => setText(e.target.value)}
          className={`${field} figure w-32 text-4xl font-semibold`}
        />
        {UNITS[step.unit].length > 1 ? (
          <select
            aria-label="Unit of the tool"
            value={unit}
            onChange={(e) => setUnit(e.target.value as keyof typeof UNIT_NAME)}
            className="min-h-14 rounded-md border border-hairline bg-sheet px-2 text-xl"
          >
            {UNITS[step.unit].map((u) => (
              <option key={u} value={u}>
                {UNIT_NAME[u]}
              </option>
            ))}
          </select>
        ) : (
          <span className="text-2xl text-soft">{UNIT_NAME[unit]}</span>
        )}
        <Button type="submit" look="act" size="large" disabled={busy !== null || value === null}>
          Enter
        </Button>
      </form>
    </NextBar>
  );
}

const CODE_NAMES: Record<RefusalCode, string> = {
  conditions: "engine, lamps or entry not as it wants",
  "not-found": "target not found",
  shape: "target not as it should look",
  "too-small": "target too small or too far",
  "too-large": "target too large or too near",
  "aim-side": "aim to the side beyond its limit",
  "aim-height": "aim up or down beyond its limit",
  "aim-roll": "camera or target turned beyond its limit",
};

type Read = {
  name: string;
  text: string;
  sha256: string;
  fields: Field[];
  mapping: ToolMapping | null;
};

/** What the shop's own tool answered: typed, typed beside a photo, or read from its own report. */
export function ResultByHand({ step, busy, command }: Props & { step: Of<"routine"> }) {
  const { say, dismissNotice } = useJob();
  const [read, setRead] = useState<Read | null>(null);
  const [teaching, setTeaching] = useState(false);
  const [typing, setTyping] = useState<"passed" | "refused" | null>(null);
  const bring = async (file: File): Promise<void> => {
    const response = await fetch("/api/tool-reports", { method: "POST", body: file });
    const body = (await response.json().catch(() => ({}))) as Partial<Read> & { error?: string };
    if (!response.ok || !body.fields)
      return say(body.error ?? "The report did not arrive. Try again.");
    dismissNotice();
    const found = { ...(body as Read), name: file.name };
    setRead(found);
    setTeaching(found.mapping === null);
  };
  if (typing)
    return (
      <TypedResult
        step={step}
        passed={typing === "passed"}
        busy={busy}
        command={command}
        onBack={() => setTyping(null)}
      />
    );
  if (read?.mapping && !teaching) {
    const found = readReport(read.fields, read.mapping);
    return (
      <NextBar
        tone={!found.ok ? "stop" : found.result.passed ? "act" : "loose"}
        say={
          !found.ok
            ? found.problem
            : found.result.passed
              ? `The report says it learned, quality ${formatNumber(found.result.qualityPercent)} %.`
              : `The report says it refused: ${found.result.reason}`
        }
        detail={
          found.ok
            ? `${read.name}, read as ${read.mapping.name}.${angles(found.result)}${found.vin ? ` VIN ${found.vin}.` : ""}`
            : read.name
        }
      >
        <Button look="quiet" size="large" onClick={() => setRead(null)}>
          Another
        </Button>
        <Button look="plain" size="large" onClick={() => setTeaching(true)}>
          Teach anew
        </Button>
        {found.ok && (
          <Button
            look="act"
            size="large"
            disabled={busy !== null}
            onClick={() =>
              void command({
                type: "import-result",
                step: step.id,
                name: read.name,
                sha256: read.sha256,
                text: read.text,
                mapping: read.mapping!.id,
              })
            }
          >
            Take it
          </Button>
        )}
      </NextBar>
    );
  }
  return (
    <>
      <NextBar
        say="Follow the routine on your tool. What does it answer?"
        detail="Open the camera’s unit on it, then its calibration, and go on until it says that it is done or refused."
      >
        <PhotoButton subject="tool" />
        <label className="flex min-h-16 cursor-pointer items-center rounded-md border-2 border-ink bg-sheet px-4 text-lg font-semibold hover:bg-wash focus-within:outline focus-within:outline-2 focus-within:outline-act">
          Its report
          <input
            type="file"
            accept=".pdf,.csv,.txt,application/pdf,text/csv,text/plain"
            aria-label="Report of the tool"
            className="sr-only"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) void bring(file);
              e.target.value = "";
            }}
          />
        </label>
        <Button look="plain" size="large" onClick={() => setTyping("refused")}>
          It refused
        </Button>
        <Button look="act" size="large" onClick={() => setTyping("passed")}>
          It passed
        </Button>
      </NextBar>
      {read && (
        <TeachReport
          open={teaching}
          name={read.name}
          fields={read.fields}
          known={read.mapping}
          onClose={() => {
            setTeaching(false);
            if (!read.mapping) setRead(null);
          }}
          onTaught={(mapping) => {
            setRead({ ...read, mapping });
            setTeaching(false);
          }}
        />
      )}
    </>
  );
}

function angles(r: {
  learnedYawDeg?: number | undefined;
  learnedPitchDeg?: number | undefined;
  learnedRollDeg?: number | undefined;
}): string {
  const parts = (
    [
      ["Yaw", r.learnedYawDeg],
      ["pitch", r.learnedPitchDeg],
      ["roll", r.learnedRollDeg],
    ] as const
  ).flatMap(([name, v]) => (v === undefined ? [] : [`${name} ${formatNumber(v, 2)}°`]));
  return parts.length > 0 ? ` ${parts.join(", ")}.` : "";
}

/** The result as somebody reads it off the tool; what the tool does not say stays empty. */
function TypedResult({
  step,
  passed,
  busy,
  command,
  onBack,
}: Props & { step: Of<"routine">; passed: boolean; onBack: () => void }) {
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [code, setCode] = useState("");
  const number = (key: string): number | null => figureOf(typed[key] ?? "");
  const bad = ["quality", "yaw", "pitch", "roll"].some(
    (k) => (typed[k] ?? "").trim() !== "" && number(k) === null,
  );
  const box = (key: string, label: string, width = "w-16"): ReactNode => (
    <label key={key} className="flex flex-col text-sm text-soft">
      {label}
      <input
        aria-label={label}
        inputMode={key === "reason" ? "text" : "decimal"}
        value={typed[key] ?? ""}
        maxLength={200}
        onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
        className={`${field} ${key === "reason" ? "" : "figure"} ${width} text-ink`}
      />
    </label>
  );
  return (
    <NextBar
      tone={passed ? "act" : "loose"}
      say={passed ? "What does the tool say it learned?" : "What does the tool say of its refusal?"}
      detail={
        <>
          Leave empty what it does not say. Plus is to vehicle left, nose down, rolled right.
          <form
            className="mt-2 flex flex-wrap items-end gap-2 text-ink"
            onSubmit={(e) => {
              e.preventDefault();
              if (bad) return;
              void command({
                type: "type-result",
                step: step.id,
                passed,
                qualityPercent: number("quality"),
                yawDeg: number("yaw"),
                pitchDeg: number("pitch"),
                rollDeg: number("roll"),
                reason: (typed.reason ?? "").trim() || null,
                code: code || null,
              });
            }}
          >
            {!passed && (
              <>
                {box("reason", "Its words", "w-48")}
                <label className="flex flex-col text-sm text-soft">
                  Kind
                  <select
                    aria-label="Kind of refusal"
                    value={code}
                    onChange={(e) => setCode(e.target.value)}
                    className="min-h-14 max-w-44 rounded-md border border-hairline bg-sheet px-2 text-lg text-ink"
                  >
                    <option value="">not said</option>
                    {REFUSAL_CODES.map((c) => (
                      <option key={c} value={c}>
                        {CODE_NAMES[c]}
                      </option>
                    ))}
                  </select>
                </label>
              </>
            )}
            {box("quality", "Quality, %")}
            {box("yaw", "Yaw, °")}
            {box("pitch", "Pitch, °")}
            {box("roll", "Roll, °")}
            <Button type="button" look="quiet" size="large" onClick={onBack}>
              Back
            </Button>
            <Button type="submit" look="act" size="large" disabled={busy !== null || bad}>
              Take it
            </Button>
          </form>
        </>
      }
    />
  );
}

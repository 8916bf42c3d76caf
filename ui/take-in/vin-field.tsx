"use client";

import type { RefObject } from "react";
import type { VinCheck } from "@/core/vehicle";

type Props = {
  input: RefObject<HTMLInputElement | null>;
  value: string;
  check: VinCheck;
  reason: string;
  onChange: (vin: string) => void;
  onReason: (reason: string) => void;
};

/**
 * Seventeen places, each visible; a wrong one is barred where it stands. A doubtful VIN can be kept
 * with a reason.
 */
export function VinField({ input, value, check, reason, onChange, onReason }: Props) {
  const typed = check.vin.length;
  const begun = typed > 0;
  // While it is still being typed, only a letter that no VIN has is worth a word.
  const problem = check.problems.find((p) => p.code === "letter" || typed >= 17);
  const tone = !begun
    ? "border-ink"
    : check.ok
      ? "border-settled"
      : problem
        ? "border-stop"
        : "border-act";
  return (
    <div className="[--cell:calc(1ch+7px)] sm:[--cell:calc(1ch+16px)] lg:[--cell:calc(1ch+22px)]">
      <label htmlFor="vin" className="text-sm font-semibold text-soft">
        VIN
      </label>
      <div className="figure relative text-[21px] font-semibold sm:text-3xl lg:text-[38px]">
        <div className="relative" style={{ width: "calc(17 * var(--cell))" }}>
          <span
            aria-hidden
            className="pointer-events-none absolute inset-y-1 border-r border-hairline"
            style={{
              width: "calc(17 * var(--cell))",
              backgroundImage: "linear-gradient(to right, var(--hairline) 1px, transparent 1px)",
              backgroundSize: "var(--cell) 100%",
            }}
          />
          {check.problems
            .filter((p) => p.position && (p.code === "letter" || typed >= 17))
            .map((p) => (
              <span
                key={p.position}
                aria-hidden
                className="pointer-events-none absolute inset-y-1 border-b-4 border-stop bg-stop/15"
                style={{ left: `calc(${p.position! - 1} * var(--cell))`, width: "var(--cell)" }}
              />
            ))}
          <input
            id="vin"
            ref={input}
            value={value}
            onChange={(e) =>
              onChange(e.target.value.toUpperCase().replace(/[\s-]/g, "").slice(0, 20))
            }
            autoCapitalize="characters"
            autoComplete="off"
            spellCheck={false}
            aria-invalid={begun && !check.ok}
            aria-describedby="vin-note"
            className={`relative h-16 border-b-4 bg-transparent outline-none lg:h-20 ${tone}`}
            // The space after the last letter counts too: without room for it the field would
            // scroll and cut the first.
            style={{
              letterSpacing: "calc(var(--cell) - 1ch)",
              paddingLeft: "calc((var(--cell) - 1ch) / 2)",
              width: "calc(18 * var(--cell) - 1ch)",
            }}
          />
        </div>
      </div>
      <div id="vin-note" className="mt-1 min-h-7 text-base" aria-live="polite">
        {problem ? (
          <span className="text-stop">{problem.message}</span>
        ) : check.ok ? (
          <span className="text-settled">
            {check.checkDigit === "agrees"
              ? `17 places, check digit ${check.vin[8]} agrees.`
              : "17 places. This kind of VIN carries no check digit: read it twice."}
          </span>
        ) : (
          <span className="text-soft">
            {begun
              ? `${typed} of 17`
              : "17 places, no I, O or Q. Read it off the windshield frame, not off the papers."}
          </span>
        )}
      </div>
      {problem && (
        <div className="mt-1 max-w-[760px]">
          <label htmlFor="vin-reason" className="text-sm font-semibold text-soft">
            If it really reads so, keep it, because
          </label>
          <input
            id="vin-reason"
            value={reason}
            onChange={(e) => onReason(e.target.value)}
            maxLength={400}
            placeholder="for example: plate read twice, stamped so"
            className="min-h-14 w-full border-b-2 border-ink bg-transparent px-1 text-lg outline-none placeholder:text-soft focus:border-act"
          />
        </div>
      )}
    </div>
  );
}

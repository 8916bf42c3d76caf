"use client";

import {
  FUNCTIONS,
  functionsOf,
  fittedTo,
  LAMPS,
  lastOf,
  readOdometer,
  type FunctionId,
  type LampId,
} from "@/core/job";
import { useJob } from "../bench/job-store";
import { Photos } from "../photos/photos";
import { Button } from "../primitives/button";
import { Field } from "../primitives/field";
import { Mark } from "../primitives/marks";
import { useKept } from "../primitives/use-kept";

type Draft = { odometer: string; lamps: LampId[]; settings: Partial<Record<FunctionId, string>> };

/**
 * The vehicle as it came in: photos, odometer, lamps that are lit, and the customer's own settings
 * to be put back.
 */
export function WalkRound() {
  const { ground, events, head, write, me } = useJob();
  const kept = lastOf(events, "walk");
  const functions = functionsOf(fittedTo(ground.vehicle, ground.intake.answers));
  const [draft, change, letGo] = useKept<Draft>(`iridel:walk:${head.id}`, {
    odometer: kept?.body.odometerTyped ?? "",
    lamps: kept?.body.lamps ?? [],
    settings: kept?.body.settings ?? {},
  });
  const readOnly = me.role === "viewer";
  const km = readOdometer(draft.odometer);
  const problem =
    draft.odometer.trim() !== "" && km === null
      ? "Type the figure as the dash shows it, with mi if it counts miles."
      : null;
  const print = (): void => {
    if (km === null) return;
    const settings = Object.fromEntries(
      functions.flatMap((f) => (draft.settings[f]?.trim() ? [[f, draft.settings[f].trim()]] : [])),
    );
    write({
      kind: "walk",
      odometerKm: km,
      odometerTyped: draft.odometer.trim(),
      lamps: draft.lamps,
      settings,
    });
    letGo();
  };
  return (
    <section aria-label="As it came in">
      <h2 className="text-2xl font-semibold">As it came in</h2>
      <p className="mb-3 text-base text-soft">
        What is written down now cannot be laid at the shop’s door later.
      </p>
      <Photos subjects={["vehicle", "odometer", "dash", "damage"]} />
      <div className="mt-4 grid gap-x-8 gap-y-4 xl:grid-cols-[220px_1fr]">
        <Field
          label="Odometer"
          value={draft.odometer}
          readOnly={readOnly}
          inputMode="text"
          autoComplete="off"
          maxLength={40}
          hint="km, or name mi"
          problem={problem}
          onChange={(e) => change({ odometer: e.target.value })}
        />
        <fieldset>
          <legend className="mb-1 text-sm font-semibold text-soft">
            Lamps lit with the ignition on
          </legend>
          <div className="flex flex-wrap gap-1.5">
            {(Object.keys(LAMPS) as LampId[]).map((l) => {
              const on = draft.lamps.includes(l);
              return (
                <button
                  key={l}
                  type="button"
                  aria-pressed={on}
                  disabled={readOnly}
                  onClick={() =>
                    change({ lamps: on ? draft.lamps.filter((x) => x !== l) : [...draft.lamps, l] })
                  }
                  className={`flex min-h-12 items-center gap-2 rounded-md border-2 bg-sheet px-3 text-base ${on ? "border-loose font-semibold" : "border-hairline hover:border-ink"}`}
                >
                  <Mark state={on ? "loose" : "open"} size={12} /> {LAMPS[l]}
                </button>
              );
            })}
          </div>
        </fieldset>
      </div>
      <fieldset className="mt-4">
        <legend className="mb-1 text-sm font-semibold text-soft">
          The customer’s settings as found, to be put back at the end
        </legend>
        <div className="grid gap-x-8 md:grid-cols-2">
          {functions.map((f) => (
            <div
              key={f}
              className="flex items-center gap-2 border-b border-dashed border-hairline py-1"
            >
              <label htmlFor={`as-found-${f}`} className="w-36 shrink-0 text-base">
                {FUNCTIONS[f].name}
              </label>
              <input
                id={`as-found-${f}`}
                value={draft.settings[f] ?? ""}
                readOnly={readOnly}
                maxLength={80}
                placeholder="not looked at"
                onChange={(e) => change({ settings: { ...draft.settings, [f]: e.target.value } })}
                className="min-h-12 w-full min-w-0 bg-transparent px-1 text-lg outline-none placeholder:text-chalk focus:bg-wash"
              />
              {!readOnly &&
                ["on", "off"].map((word) => (
                  <button
                    key={word}
                    type="button"
                    aria-label={`${FUNCTIONS[f].name} ${word}`}
                    aria-pressed={draft.settings[f] === word}
                    onClick={() => change({ settings: { ...draft.settings, [f]: word } })}
                    className={`min-h-12 min-w-12 rounded-md border text-base ${draft.settings[f] === word ? "border-act bg-act font-semibold text-on-act" : "border-hairline hover:border-ink"}`}
                  >
                    {word}
                  </button>
                ))}
            </div>
          ))}
        </div>
      </fieldset>
      {!readOnly && (
        <Button
          look="act"
          size="large"
          className="mt-4 w-full md:w-auto"
          disabled={km === null}
          onClick={print}
        >
          {kept ? "Print it again" : "Print to the slip"}
        </Button>
      )}
    </section>
  );
}

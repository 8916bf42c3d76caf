"use client";

import { useState } from "react";
import { Button } from "../primitives/button";
import { Field } from "../primitives/field";
import { useSettings, useTimes, type ShopClock } from "../settings";

const DAYS: [number, string][] = [
  [1, "Monday"],
  [0, "Sunday"],
  [6, "Saturday"],
];

/** Where the shop's clock hangs: every time on a screen or a report is read off it. */
export function ClockSection({
  zones,
  lead,
  onChoose,
}: {
  zones: string[];
  lead: boolean;
  onChoose: (clock: ShopClock) => void;
}) {
  const { clock } = useSettings();
  const times = useTimes();
  const [zone, setZone] = useState(clock.zone);
  const known = zones.includes(zone) || zone === clock.zone;
  return (
    <section aria-label="Clock" className="mt-6">
      <h2 className="border-b-2 border-ink pb-1 text-2xl font-semibold">Clock</h2>
      <form
        className="mt-2 grid items-start gap-x-8 gap-y-3 md:grid-cols-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (known) onChoose({ ...clock, zone });
        }}
      >
        <div>
          <Field
            label="Time zone of the shop"
            list="zones"
            value={zone}
            readOnly={!lead}
            onChange={(e) => setZone(e.target.value.trim())}
            hint={`There it is ${times.dateAndTime(new Date().toISOString())} now. Times on screens and reports are read off this clock; the log keeps them in UTC.`}
            problem={
              known ? null : "No time zone has this name; choose one from the list: Europe/London."
            }
            action={
              lead &&
              zone !== clock.zone && (
                <Button type="submit" look="act" disabled={!known}>
                  Set the clock
                </Button>
              )
            }
          />
          <datalist id="zones">
            {zones.map((z) => (
              <option key={z} value={z} />
            ))}
          </datalist>
        </div>
        <fieldset>
          <legend className="mb-1 text-sm font-semibold text-soft">A week begins on</legend>
          <div className="flex flex-wrap gap-1">
            {DAYS.map(([day, name]) => (
              <Button
                key={day}
                look={clock.firstDay === day ? "act" : "tool"}
                disabled={!lead}
                aria-pressed={clock.firstDay === day}
                onClick={() => onChoose({ ...clock, firstDay: day })}
              >
                {name}
              </Button>
            ))}
          </div>
        </fieldset>
      </form>
    </section>
  );
}

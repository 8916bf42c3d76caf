"use client";

import { useState } from "react";
import type { Intake } from "@/core/job";
import { EVENT_PLACES, EVENTS, PLACES, type EventId, type PlaceId } from "@/core/owed";
import { Mark } from "../primitives/marks";

type List = Intake["happenings"];
const COMMON: EventId[] = [
  "glass-out",
  "camera-touched",
  "bracket-touched",
  "bumper-touched",
  "mirror-touched",
  "alignment",
  "collision-near",
  "complaint",
];
const REST = (Object.keys(EVENTS) as EventId[]).filter((e) => !COMMON.includes(e));

/**
 * What was done or happened; where it can have been in several places, the place is asked at once.
 */
export function Happenings({ value, onChange }: { value: List; onChange: (list: List) => void }) {
  const [all, setAll] = useState(false);
  const shown = [...COMMON, ...(all ? REST : REST.filter((e) => value.some((h) => h.event === e)))];
  const toggle = (event: EventId): void => {
    if (value.some((h) => h.event === event))
      return onChange(value.filter((h) => h.event !== event));
    const places = EVENT_PLACES[event];
    onChange([...value, { event, place: places.length === 1 ? places[0]! : null }]);
  };
  /** Both sides can have been touched: each place is a happening of its own. */
  const togglePlace = (event: EventId, place: PlaceId): void => {
    const others = value.filter(
      (h) => h.event !== event || (h.place !== null && h.place !== place),
    );
    const had = value.some((h) => h.event === event && h.place === place);
    const next = had ? others : [...others, { event, place }];
    onChange(next.some((h) => h.event === event) ? next : [...next, { event, place: null }]);
  };
  return (
    <fieldset id="take-in-done">
      <legend className="mb-2 text-sm font-semibold text-soft">What was done</legend>
      <div className="grid grid-cols-2 items-start gap-2 lg:grid-cols-4">
        {shown.map((event) => {
          const on = value.some((h) => h.event === event);
          const places = EVENT_PLACES[event];
          return (
            <div
              key={event}
              className={`rounded-md border-2 bg-sheet ${on ? "border-act" : "border-hairline hover:border-ink"}`}
            >
              <button
                type="button"
                aria-pressed={on}
                onClick={() => toggle(event)}
                className="flex min-h-14 w-full items-center gap-3 px-3 py-2 text-left text-[15px] font-semibold leading-tight"
              >
                <Mark state={on ? "settled" : "open"} /> {EVENTS[event]}
              </button>
              {on && places.length > 1 && (
                <div
                  className="flex flex-wrap gap-1 px-2 pb-2"
                  role="group"
                  aria-label={`Where: ${EVENTS[event]}`}
                >
                  {places.map((p) => {
                    const here = value.some((h) => h.event === event && h.place === p);
                    return (
                      <button
                        key={p}
                        type="button"
                        aria-pressed={here}
                        aria-label={PLACES[p]}
                        onClick={() => togglePlace(event, p)}
                        className={`min-h-12 rounded-md border px-2.5 text-sm ${here ? "border-act bg-act font-semibold text-on-act" : "border-hairline hover:border-ink"}`}
                      >
                        {PLACES[p].replace("vehicle ", "")}
                      </button>
                    );
                  })}
                </div>
              )}
            </div>
          );
        })}
        <button
          type="button"
          aria-expanded={all}
          onClick={() => setAll(!all)}
          className="col-span-full min-h-14 justify-self-start rounded-md px-3 text-left text-base font-semibold text-act underline decoration-dotted underline-offset-4 hover:bg-wash"
        >
          {all ? "Fewer" : `${REST.length} more`}
        </button>
      </div>
    </fieldset>
  );
}

"use client";

import { useState } from "react";
import { DayPicker } from "react-day-picker";
import { useSettings, useTimes } from "../settings";
import { Button } from "./button";
import { Field } from "./field";

const HOURS = ["09:00", "11:00", "12:00", "13:00", "15:00", "16:00", "17:00", "18:00"];
const TIME = /^([01]?\d|2[0-3])[:.h ]?([0-5]\d)$/;
const WEEKDAYS = [0, 1, 2, 3, 4, 5, 6] as const;

/** The day as the calendar's library wants it: midnight wherever this tablet believes to be. */
const dayAt = (day: string): Date => {
  const [y, m, d] = day.split("-").map(Number);
  return new Date(y!, m! - 1, d);
};
const dayOf = (at: Date): string =>
  [at.getFullYear(), at.getMonth() + 1, at.getDate()]
    .map((n) => String(n).padStart(2, "0"))
    .join("-");

/** "9:30", "0930" and "9 30" are half past nine; null where it is no time of day. */
const timeOf = (text: string): string | null => {
  const m = TIME.exec(text.trim());
  return m ? `${m[1]!.padStart(2, "0")}:${m[2]}` : null;
};

const CELL = "h-12 w-11 text-center align-middle sm:w-12";
const LOOKS = {
  root: "figure",
  month_caption: "mb-2 flex min-h-12 items-center text-xl font-semibold",
  months: "relative",
  nav: "absolute right-0 top-0 flex gap-1",
  button_previous: "grid h-12 w-12 place-items-center rounded-md hover:bg-wash disabled:opacity-45",
  button_next: "grid h-12 w-12 place-items-center rounded-md hover:bg-wash disabled:opacity-45",
  chevron: "h-5 w-5 fill-current",
  weekday: "h-8 w-11 text-center text-sm font-semibold text-soft sm:w-12",
  day: CELL,
  day_button: "h-12 w-11 rounded-md text-lg sm:w-12 hover:bg-wash disabled:opacity-35",
  today: "font-semibold underline underline-offset-4",
  selected: "[&>button]:bg-act [&>button]:font-semibold [&>button]:text-on-act",
  outside: "text-chalk",
};

/** Chooses a day on a calendar that begins its weeks as the shop does, and a time beside it. */
export function MomentPicker({
  value,
  onTake,
}: {
  value: string;
  onTake: (local: string) => void;
}) {
  const { clock } = useSettings();
  const times = useTimes();
  const today = times.day(new Date().toISOString());
  const [day, setDay] = useState(value.slice(0, 10) || today);
  const [text, setText] = useState(value.slice(11) || "17:00");
  const time = timeOf(text);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (time) onTake(`${day}T${time}`);
      }}
    >
      <div className="flex flex-wrap gap-x-8 gap-y-4">
        <DayPicker
          mode="single"
          required
          selected={dayAt(day)}
          defaultMonth={dayAt(day)}
          today={dayAt(today)}
          weekStartsOn={WEEKDAYS[clock.firstDay]}
          disabled={{ before: dayAt(today) }}
          onSelect={(at) => setDay(dayOf(at))}
          classNames={LOOKS}
        />
        <div className="min-w-48 flex-1">
          <Field
            label="Time"
            value={text}
            inputMode="numeric"
            hint={`by the clock of ${clock.zone.replace("_", " ")}`}
            problem={time ? null : "Type hours and minutes, such as 16:30."}
            onChange={(e) => setText(e.target.value)}
          />
          <div className="mt-2 grid grid-cols-4 gap-1">
            {HOURS.map((h) => (
              <Button key={h} look={time === h ? "act" : "tool"} onClick={() => setText(h)}>
                {h}
              </Button>
            ))}
          </div>
        </div>
      </div>
      <div className="mt-4 flex flex-wrap justify-end gap-2">
        {value && (
          <Button look="quiet" onClick={() => onTake("")}>
            No time named
          </Button>
        )}
        <Button type="submit" look="act" disabled={!time}>
          Take it
        </Button>
      </div>
    </form>
  );
}

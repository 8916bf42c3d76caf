"use client";

import dynamic from "next/dynamic";
import { useId, useState } from "react";
import { Dialog } from "./dialog";

const MomentPicker = dynamic(() => import("./moment-picker").then((m) => m.MomentPicker));

const spoken = new Intl.DateTimeFormat("en-GB", {
  timeZone: "UTC",
  weekday: "short",
  day: "numeric",
  month: "short",
  year: "numeric",
  hour: "2-digit",
  minute: "2-digit",
});
/** A wall clock as people say it. It is read as UTC and written as UTC: no zone comes into it. */
const say = (local: string): string => spoken.format(new Date(`${local}:00Z`));

/** A day and a time by the shop's clock, YYYY-MM-DDTHH:mm; empty where none is set. */
export function MomentField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (local: string) => void;
}) {
  const id = useId();
  const [open, setOpen] = useState(false);
  const take = (local: string): void => {
    onChange(local);
    setOpen(false);
  };
  return (
    <div>
      <span id={id} className="mb-1 block text-sm font-semibold text-soft">
        {label}
      </span>
      <button
        type="button"
        aria-labelledby={`${id} ${id}-v`}
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
        className="flex min-h-14 w-full items-center border-b-2 border-ink px-1 text-left text-xl hover:bg-wash"
      >
        <span id={`${id}-v`} className={value ? "" : "text-soft"}>
          {value ? say(value) : "no time named"}
        </span>
      </button>
      <Dialog open={open} onClose={() => setOpen(false)} title={label} wide>
        <MomentPicker value={value} onTake={take} />
      </Dialog>
    </div>
  );
}

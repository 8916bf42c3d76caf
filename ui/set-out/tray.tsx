"use client";

import { isWalked, sideKeys, slotValue, type Judged, type Slot } from "@/core/setout";
import { Mark, type MarkState } from "../primitives/marks";
import { useSettings } from "../settings";

type Held = { value: string; state: MarkState; count: number };

function heldAt(slot: Slot, judged: Judged, lengths: "mm" | "in"): Held {
  const readings = judged.solution.readings.filter((r) => r.slotId === slot.id);
  const last = readings.findLast((r) => r.state === "counts") ?? readings.at(-1);
  if (!last) return { value: "–", state: "open", count: 0 };
  const suspect = readings.some((r) => judged.verdict.suspects.includes(r.id));
  const state = suspect ? "loose" : last.state === "doubt" ? "doubt" : "settled";
  // The unit stands in the top bar; here only the figure, and L or R where it has a side.
  const side =
    slot.sides && sideKeys(slot)[0] === "L" && last.shown !== 0
      ? last.shown > 0
        ? " L"
        : " R"
      : "";
  const value = slotValue(
    { ...slot, sides: undefined },
    side ? Math.abs(last.shown) : last.shown,
    lengths,
  ).replace(/\u00a0(mm|in|div)$/, "");
  return { value: value + side, state, count: readings.length };
}

/** Every reading this kit can take, in any order: tap one to arm it. */
export function Tray({
  judged,
  armed,
  onArm,
}: {
  judged: Judged;
  armed: string | null;
  onArm: (slotId: string) => void;
}) {
  const { lengths } = useSettings();
  const { slots, readings } = judged.solution;
  const walked = slots.filter(
    (s) => isWalked(judged.solution, s) || readings.some((r) => r.slotId === s.id),
  );
  return (
    <ul
      aria-label="Readings"
      className="flex shrink-0 gap-1 overflow-x-auto border-t border-hairline px-2 py-1.5"
    >
      {walked.map((slot) => {
        const held = heldAt(slot, judged, lengths);
        const here = slot.id === armed;
        return (
          <li key={slot.id} className="min-w-[88px] flex-[1_0_auto]">
            <button
              type="button"
              onClick={() => onArm(slot.id)}
              aria-pressed={here}
              aria-label={`${slot.name}: ${held.value}`}
              title={slot.name}
              data-slot={slot.id}
              data-state={held.state}
              className={`flex min-h-14 w-full flex-col justify-center rounded-md border-2 px-2 text-left ${here ? "border-act bg-sheet" : held.state === "loose" ? "border-dashed border-loose" : "border-transparent hover:border-hairline"}`}
            >
              <span className="flex items-center gap-1.5 whitespace-nowrap text-sm leading-tight text-soft">
                <Mark state={held.state} size={10} /> {slot.short}
                {held.count > 1 && <span className="figure text-xs">×{held.count}</span>}
              </span>
              <span className="figure text-lg font-semibold leading-tight">{held.value}</span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}

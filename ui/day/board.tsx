"use client";

import {
  DndContext,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragMoveEvent,
} from "@dnd-kit/core";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { faultsOf, type Fault } from "@/core/schedule/check";
import type { ShopPlan } from "@/core/schedule/plan-shop";
import type { Card, Part, Pin, ShopDay } from "@/core/schedule/shop";
import type { Placed } from "@/core/schedule/types";
import { hoursOf, lanesOf, rowsOf, type Lane, type LaneKind } from "./lanes";
import { PART_WORDS } from "./words";
import { clockOf } from "@/core/units/minute";

const ROW_PX = 56;
const NAME_PX = 132;
/** What is dragged goes to whole steps of this; what is pushed by key too. */
const STEP_MIN = 5;

const keyOf = (p: Placed): string => `${p.job}/${p.task}`;

/** What no other task can make room for: it would have to be moved again. */
const FIRM: readonly Fault["kind"][] = [
  "before-now",
  "before-arrival",
  "away",
  "window",
  "bay",
  "crew",
];
const WHY_NOT: Partial<Record<Fault["kind"], string>> = {
  "before-now": "That is over already.",
  "before-arrival": "It is not there yet.",
  away: "Nobody works then.",
  window: "Its hours are others.",
  bay: "It does not fit there.",
  crew: "That person may not.",
};

/** The plan of a day as a board: a lane for each bay, person or board, and a line for now. */
export function Board({
  shop,
  plan,
  kind,
  chosen,
  readOnly,
  onChoose,
  onPin,
  onRefuse,
}: {
  shop: ShopDay;
  plan: ShopPlan;
  kind: LaneKind;
  chosen: string | null;
  readOnly: boolean;
  onChoose: (card: string | null) => void;
  onPin: (card: string, part: Part, pin: Pin | null) => void;
  /** Somebody wanted something where it cannot be. */
  onRefuse: (words: string) => void;
}) {
  const [moving, setMoving] = useState<{ key: string; at: number; why: string | null } | null>(
    null,
  );
  const track = useRef<HTMLDivElement>(null);
  const scroll = useRef<HTMLDivElement>(null);
  // A finger that taps chooses; only one that goes on drags.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const [from, to] = hoursOf(shop, plan.plan);
  const share = (min: number): string => `${(100 * (min - from)) / (to - from)}%`;
  const lanes = lanesOf(shop, plan.plan, kind);
  const cardOf = (p: Placed): Card => shop.cards.find((c) => c.id === p.job)!;
  const late = new Set(plan.broken.map((b) => b.job));

  /** Where a block would be, and what is firmly against it. */
  const tried = (
    p: Placed,
    byMin: number,
    lane: string | null,
  ): { pin: Pin; why: string | null } => {
    const startMin = Math.max(0, Math.round((p.startMin + byMin) / STEP_MIN) * STEP_MIN);
    const pin: Pin = { ...cardOf(p).pins[p.task as Part], startMin };
    const there = { ...p, startMin, endMin: startMin + p.endMin - p.startMin };
    if (lane && kind === "bay" && lane !== "out" && lane !== "unsaid" && p.bay !== null) {
      pin.bay = lane;
      there.bay = lane;
    }
    if (lane && kind === "person" && p.people.length > 0) {
      pin.person = lane;
      if (!p.people.includes(lane)) there.people = [lane, ...p.people.slice(1)];
    }
    const placed = plan.plan.placed.map((x) => (x === p ? there : x));
    const firm = faultsOf(plan.day, placed).find(
      (f) => f.job === p.job && f.task === p.task && FIRM.includes(f.kind),
    );
    // A bay in which it does not fit may be chosen by hand, and is then said.
    return { pin, why: firm ? (WHY_NOT[firm.kind] ?? "It cannot be there.") : null };
  };
  const minutesOf = (px: number): number => (px / (track.current?.clientWidth ?? 1)) * (to - from);
  const blockOf = (key: unknown): Placed | undefined =>
    plan.plan.placed.find((p) => keyOf(p) === key);
  const onDragMove = ({ active, delta, over }: DragMoveEvent): void => {
    const p = blockOf(active.id);
    if (!p) return;
    const { pin, why } = tried(p, minutesOf(delta.x), (over?.id as string | undefined) ?? null);
    setMoving({ key: keyOf(p), at: pin.startMin!, why });
  };
  const onDragEnd = ({ active, delta, over }: DragEndEvent): void => {
    setMoving(null);
    const p = blockOf(active.id);
    if (!p) return;
    const { pin, why } = tried(p, minutesOf(delta.x), (over?.id as string | undefined) ?? null);
    put(p, pin, why);
  };
  /** A bay in which it does not fit may be chosen by hand: whoever does so answers for it. */
  const put = (p: Placed, pin: Pin, why: string | null): void => {
    if (!why || why === WHY_NOT.bay) onPin(p.job, p.task as Part, pin);
    else onRefuse(`${cardOf(p).title} at ${clockOf(pin.startMin ?? p.startMin)}: ${why}`);
  };
  const onKey = (e: KeyboardEvent, p: Placed): void => {
    const step = { ArrowLeft: -STEP_MIN, ArrowRight: STEP_MIN }[e.key];
    const turn = { ArrowUp: -1, ArrowDown: 1 }[e.key];
    if (readOnly || firmly(p)) return;
    if (step !== undefined) {
      e.preventDefault();
      const { pin, why } = tried(p, e.shiftKey ? 6 * step : step, null);
      put(p, pin, why);
    } else if (turn !== undefined && kind !== "thing") {
      e.preventDefault();
      const own = kind === "bay" ? p.bay : p.people[0];
      const ids = lanes.map((l) => l.id).filter((id) => id !== "out" && id !== "unsaid");
      const next = ids[ids.indexOf(own ?? "") + turn];
      if (next) onPin(p.job, p.task as Part, tried(p, 0, next).pin);
    } else if (e.key === "Delete" || e.key === "Backspace") {
      e.preventDefault();
      onPin(p.job, p.task as Part, null);
    }
  };
  /** What has begun stays where it is. */
  const firmly = (p: Placed): boolean => cardOf(p).begun?.part === p.task;
  useEffect(() => {
    // On a narrow screen the board begins an hour before now.
    const box = scroll.current;
    if (box) box.scrollLeft = ((shop.nowMin - 60 - from) / (to - from)) * box.scrollWidth;
    // Only where it begins: whoever has moved it since wants it there.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const hours = Array.from({ length: (to - from) / 60 }, (_, i) => from + 60 * i);
  return (
    <DndContext
      sensors={sensors}
      onDragMove={onDragMove}
      onDragEnd={onDragEnd}
      onDragCancel={() => setMoving(null)}
      accessibility={{
        screenReaderInstructions: {
          draggable:
            "Arrows left and right move it by five minutes, up and down to another lane; Delete lets it go.",
        },
      }}
    >
      <div ref={scroll} className="overflow-x-auto bg-sheet">
        <div className="relative min-w-[860px]">
          <div className="flex border-b-2 border-ink" style={{ paddingLeft: NAME_PX }}>
            <div ref={track} className="relative h-9 flex-1">
              {hours.map((h) => (
                <span
                  key={h}
                  className="figure absolute top-1 text-base text-soft"
                  style={{ left: share(h) }}
                >
                  {clockOf(h)}
                </span>
              ))}
            </div>
          </div>
          {lanes.map((lane) => (
            <LaneRow key={lane.id} lane={lane} hours={hours} share={share}>
              {lane.blocks.map((p, i) => {
                const { row } = rowsOf(lane.blocks);
                const is = moving?.key === keyOf(p) ? moving : null;
                return (
                  <Block
                    key={keyOf(p)}
                    id={keyOf(p)}
                    lane={lane.id}
                    p={p}
                    card={cardOf(p)}
                    top={row[i]! * ROW_PX + 4}
                    left={share(p.startMin)}
                    width={`${(100 * (p.endMin - p.startMin)) / (to - from)}%`}
                    late={late.has(p.job)}
                    chosen={chosen === p.job}
                    still={readOnly || firmly(p)}
                    moving={is}
                    onChoose={() => onChoose(chosen === p.job ? null : p.job)}
                    onKey={(e) => onKey(e, p)}
                  />
                );
              })}
            </LaneRow>
          ))}
          {shop.nowMin >= from && shop.nowMin <= to && shop.nowMin > 0 && (
            <div
              aria-hidden
              className="pointer-events-none absolute bottom-0 top-0"
              style={{ left: NAME_PX, right: 0 }}
            >
              <span
                className="absolute bottom-0 top-0 border-l-2 border-act"
                style={{ left: share(shop.nowMin) }}
              />
            </div>
          )}
        </div>
      </div>
    </DndContext>
  );
}

function LaneRow({
  lane,
  hours,
  share,
  children,
}: {
  lane: Lane;
  hours: number[];
  share: (min: number) => string;
  children: React.ReactNode;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: lane.id });
  const { rows } = rowsOf(lane.blocks);
  return (
    <section aria-label={lane.name} className="flex border-b border-hairline last:border-b-0">
      <h3
        className="shrink-0 self-center px-3 text-lg font-semibold leading-tight"
        style={{ width: NAME_PX }}
      >
        {lane.name}
        {lane.note && (
          <span className="block truncate text-sm font-normal text-soft">{lane.note}</span>
        )}
      </h3>
      <div
        ref={setNodeRef}
        className={`relative flex-1 ${isOver ? "bg-wash" : ""}`}
        style={{ height: rows * ROW_PX + 4 }}
      >
        {hours.map((h) => (
          <span
            key={h}
            aria-hidden
            className="absolute bottom-0 top-0 border-l border-hairline"
            style={{ left: share(h) }}
          />
        ))}
        {children}
      </div>
    </section>
  );
}

/** One part of one job on the board. */
function Block({
  id,
  lane,
  p,
  card,
  top,
  left,
  width,
  late,
  chosen,
  still,
  moving,
  onChoose,
  onKey,
}: {
  id: string;
  lane: string;
  p: Placed;
  card: Card;
  top: number;
  left: string;
  width: string;
  late: boolean;
  chosen: boolean;
  still: boolean;
  moving: { at: number; why: string | null } | null;
  onChoose: () => void;
  onKey: (e: KeyboardEvent) => void;
}) {
  const part = p.task as Part;
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({
    id,
    data: { lane },
    disabled: still,
  });
  const isPinned = card.pins[part] !== undefined;
  // Too narrow for a word: its lane and its card say what it is.
  const brief = p.endMin - p.startMin < 25;
  const look = late
    ? "border-stop text-stop"
    : part === "cure"
      ? "border-chalk text-soft"
      : chosen
        ? "border-act text-ink"
        : "border-ink text-ink";
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...attributes}
      {...listeners}
      aria-label={`${card.title}, ${card.customer}: ${PART_WORDS[part]}, ${clockOf(p.startMin)} to ${clockOf(p.endMin)}${isPinned ? ", set by hand" : ""}${card.begun?.part === part ? ", begun" : ""}`}
      title={`${card.title}: ${PART_WORDS[part]}`}
      aria-pressed={chosen}
      onClick={onChoose}
      onKeyDown={onKey}
      className={`absolute overflow-hidden rounded-md border-2 bg-sheet px-1.5 text-left leading-tight ${look} ${chosen ? "bg-wash" : ""} ${still ? "" : "cursor-grab touch-none"} ${isDragging ? "z-20 shadow-lg" : ""} ${part === "cure" ? "border-dashed" : ""}`}
      style={{
        top,
        left,
        width: `calc(${width} - 2px)`,
        height: ROW_PX - 8,
        transform: transform ? `translate3d(${transform.x}px, ${transform.y}px, 0)` : undefined,
      }}
    >
      <span aria-hidden className={`block truncate font-semibold ${brief ? "hidden" : ""}`}>
        {card.begun?.part === part ? "▸ " : isPinned ? "◆ " : ""}
        {card.title}
      </span>
      <span
        aria-hidden
        className={`block truncate text-sm ${brief && !moving ? "hidden" : ""} ${moving?.why ? "text-stop" : "text-soft"}`}
      >
        {moving ? (moving.why ?? clockOf(moving.at)) : `${PART_WORDS[part]} · ${card.customer}`}
      </span>
    </button>
  );
}

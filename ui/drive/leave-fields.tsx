import { KEEPS, type Keeps } from "@/core/drive/policy";
import { Field } from "../primitives/field";
import { Mark } from "../primitives/marks";

/** What is said before leaving. */
export type Said = { keeps: Keeps | null; hotspot: boolean; rains: boolean; rainReason: string };
/** Where the seconds of a drive come from, and how fast a made-up road is driven. */
export type Source = { kind: "made-up"; faster: number } | { kind: "tablet" };

export const FAST: Source = { kind: "made-up", faster: 30 };
const SOURCES: { source: Source; name: string }[] = [
  { source: { kind: "tablet" }, name: "This tablet" },
  { source: { kind: "made-up", faster: 1 }, name: "Made-up road" },
  { source: FAST, name: "Made-up road, 30 times faster" },
];

const same = (a: Source, b: Source): boolean =>
  a.kind === b.kind && (a.kind === "tablet" || (b.kind === "made-up" && a.faster === b.faster));

/** How the speed is kept, the hotspot, the rain, and what tells where the car is. */
export function LeaveFields({
  said,
  allowed,
  gateway,
  source,
  simulated,
  disabled,
  onChange,
  onSource,
}: {
  said: Said;
  allowed: readonly Keeps[];
  /** Whether the vehicle's gateway hangs on the network. */
  gateway: boolean;
  source: Source;
  /** A made-up road is for made-up vehicles alone. */
  simulated: boolean;
  disabled: boolean;
  onChange: (said: Said) => void;
  onSource: (source: Source) => void;
}) {
  const chip = (on: boolean): string =>
    `min-h-14 rounded-md border-2 bg-sheet px-4 text-lg ${on ? "border-act font-semibold" : "border-hairline"}`;
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Speed kept by">
        <span className="w-32 text-base text-soft">Speed kept by</span>
        {allowed.map((k) => (
          <button
            key={k}
            type="button"
            disabled={disabled}
            aria-pressed={said.keeps === k}
            onClick={() => onChange({ ...said, keeps: k })}
            className={chip(said.keeps === k)}
          >
            {KEEPS[k]}
          </button>
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2">
        {gateway && (
          <Tick
            on={said.hotspot}
            disabled={disabled}
            onChange={(hotspot) => onChange({ ...said, hotspot })}
          >
            A hotspot is in the car and on
          </Tick>
        )}
        <Tick
          on={said.rains}
          disabled={disabled}
          onChange={(rains) => onChange({ ...said, rains })}
        >
          It rains
        </Tick>
      </div>
      {gateway && !said.hotspot && (
        <p className="flex items-center gap-2 text-lg font-semibold text-loose">
          <Mark state="loose" size={16} />
          This vehicle’s gateway hangs on the network: take a hotspot before you leave.
        </p>
      )}
      {said.rains && (
        <Field
          label="Why it is driven in rain"
          value={said.rainReason}
          maxLength={200}
          disabled={disabled}
          onChange={(e) => onChange({ ...said, rainReason: e.target.value })}
        />
      )}
      {simulated && (
        <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Place from">
          <span className="w-32 text-base text-soft">Place from</span>
          {SOURCES.map(({ source: s, name }) => (
            <button
              key={name}
              type="button"
              disabled={disabled}
              aria-pressed={same(source, s)}
              onClick={() => onSource(s)}
              className={chip(same(source, s))}
            >
              {name}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

function Tick({
  on,
  disabled,
  onChange,
  children,
}: {
  on: boolean;
  disabled: boolean;
  onChange: (on: boolean) => void;
  children: string;
}) {
  return (
    <label className="flex min-h-14 items-center gap-3 text-lg">
      <input
        type="checkbox"
        checked={on}
        disabled={disabled}
        onChange={(e) => onChange(e.target.checked)}
        className="size-7 accent-[var(--act)]"
      />
      {children}
    </label>
  );
}

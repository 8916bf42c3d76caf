"use client";

import type { Board } from "@/core/kit";
import { SYSTEMS, type SystemId } from "@/core/owed";
import { useSettings } from "../settings";
import { Field } from "../primitives/field";
import { SPOT_LENGTHS, type SpotDraft, type SpotLength, type SpotReading } from "./spot-draft";

type Change = (patch: Partial<SpotDraft>) => void;
type Props = {
  draft: SpotDraft;
  reading: SpotReading;
  boards: readonly Board[];
  onChange: Change;
  onLeave: () => void;
};

const BODIES: Record<SpotDraft["body"], string> = {
  car: "Car",
  coupe: "Low coupe",
  van: "Van",
  camper: "Camper",
  truck: "Truck",
};
const SIDES = { left: "On the left", right: "On the right" };
/** The forward camera is what is set out; these are only named as owed or not. */
const OTHERS = (Object.keys(SYSTEMS) as SystemId[]).filter((s) => s !== "forward-camera");

/** A few short choices in one line, of which one is taken, or several. */
function Choices<K extends string>({
  legend,
  names,
  taken,
  onTake,
}: {
  legend: string;
  names: Record<K, string>;
  taken: readonly K[];
  onTake: (k: K) => void;
}) {
  return (
    <fieldset className="min-w-0">
      <legend className="mb-1 text-sm font-semibold text-soft">{legend}</legend>
      <div className="flex flex-wrap gap-1.5">
        {(Object.keys(names) as K[]).map((k) => (
          <button
            key={k}
            type="button"
            aria-pressed={taken.includes(k)}
            onClick={() => onTake(k)}
            className={`min-h-12 rounded-md border-2 px-3 text-base font-semibold ${taken.includes(k) ? "border-act bg-act text-on-act" : "border-hairline bg-sheet hover:border-ink"}`}
          >
            {names[k]}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

const Heading = ({ children }: { children: string }) => (
  <h2 className="border-b border-hairline pb-1 text-lg font-semibold">{children}</h2>
);

/**
 * A car that stands in no book: what one person can tape of it, and what the maker's own information
 * says of the board. The job is marked as resting on that.
 */
export function OnTheSpotForm({ draft, reading, boards, onChange, onLeave }: Props) {
  const { lengths } = useSettings();
  const { problems } = reading;
  const text = (field: "make" | "model" | "source", label: string, hint?: string) => (
    <div id={`take-in-spot-${field}`}>
      <Field
        label={label}
        value={draft[field]}
        hint={hint}
        maxLength={field === "source" ? 120 : 40}
        onChange={(e) => onChange({ [field]: e.target.value })}
      />
    </div>
  );
  const length = (field: SpotLength, hint = "") => (
    <div id={`take-in-spot-${field}`}>
      <Field
        label={`${SPOT_LENGTHS[field].label}, ${lengths}`}
        value={draft[field]}
        inputMode="decimal"
        hint={hint}
        problem={problems[field]}
        onChange={(e) => onChange({ [field]: e.target.value })}
      />
    </div>
  );
  const toggle = (s: SystemId): void =>
    onChange({
      systems: draft.systems.includes(s)
        ? draft.systems.filter((x) => x !== s)
        : [...draft.systems, s],
    });
  return (
    <section aria-label="Typed on the spot" className="flex flex-col gap-4">
      <p className="border-l-4 border-loose bg-sheet px-3 py-2 text-base">
        No book of the shop has this vehicle. What you type here is for this job alone and is marked
        as yours; a second person compares it with the source before the hand-over, or the report
        says that nobody did.{" "}
        <button
          type="button"
          onClick={onLeave}
          className="min-h-12 font-semibold text-act underline underline-offset-4"
        >
          Back to the shop’s list
        </button>
      </p>
      <Heading>What it is</Heading>
      <div className="grid gap-x-4 sm:grid-cols-2">
        {text("make", "Make")}
        {text("model", "Model")}
      </div>
      <div className="flex flex-wrap gap-x-8 gap-y-3">
        <Choices
          legend="Body"
          names={BODIES}
          taken={[draft.body]}
          onTake={(body) => onChange({ body })}
        />
        <Choices
          legend="Driver"
          names={SIDES}
          taken={[draft.driverSide]}
          onTake={(driverSide) => onChange({ driverSide })}
        />
      </div>
      <Choices
        legend="What else it has, as far as you can see"
        names={Object.fromEntries(OTHERS.map((s) => [s, SYSTEMS[s]])) as Record<SystemId, string>}
        taken={draft.systems}
        onTake={toggle}
      />
      <Heading>What you taped</Heading>
      <p className="-mt-2 text-base text-soft">
        Plumb the hub caps to the floor and tape between the marks; the wheelbase is the mean of
        both sides.
      </p>
      <div className="grid gap-x-4 gap-y-2 sm:grid-cols-3">
        {length("wheelbase")}
        {length("frontCaps")}
        {length("rearCaps")}
        {length("hubHeight")}
        {length("taped", "two tapings in three agree to this")}
      </div>
      <Heading>What the source says of the board</Heading>
      <div className="grid gap-x-4 gap-y-2 sm:grid-cols-3">
        <div className="sm:col-span-2">
          {text("source", "Source", "the maker’s current service information: title and number")}
        </div>
        <div id="take-in-spot-boardCode">
          <label htmlFor="spot-board" className="mb-1 block text-sm font-semibold text-soft">
            Board
          </label>
          <select
            id="spot-board"
            value={draft.boardCode}
            onChange={(e) => onChange({ boardCode: e.target.value })}
            className="min-h-14 w-full border-b-2 border-ink bg-transparent px-1 text-xl outline-none focus:border-act"
          >
            <option value="">choose</option>
            {boards.map((b) => (
              <option key={b.code} value={b.code}>
                {b.code}
              </option>
            ))}
          </select>
          <p className="mt-1 min-h-5 text-sm text-soft">
            {boards.find((b) => b.code === draft.boardCode)?.name ?? "from the shop’s kit"}
          </p>
        </div>
        {length("along", "counted from the bumper or the camera? Tape that to the hub line first")}
        {length("height")}
      </div>
      <div className="grid grid-cols-2 gap-x-4 gap-y-2 sm:grid-cols-4">
        {length("tolAlong")}
        {length("tolAcross")}
        {length("tolHeight")}
        <div id="take-in-spot-tolTwist">
          <Field
            label="Twist ±, degrees"
            value={draft.tolTwist}
            inputMode="decimal"
            problem={problems.tolTwist}
            onChange={(e) => onChange({ tolTwist: e.target.value })}
          />
        </div>
      </div>
      <p className="-mt-2 text-base text-soft">
        The board belongs on the centreline, square to it; the emblems at front and rear are taken
        to sit in the middle, to ± 2 mm. A source or a car that has it otherwise needs a sheet of
        its own, entered under Sheets.
      </p>
    </section>
  );
}

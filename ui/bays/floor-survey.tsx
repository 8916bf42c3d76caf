"use client";

import { useState } from "react";
import type { Bay } from "@/core/space/bay";
import { spotsOver, type Hold } from "@/core/space/draw";
import { floorGrid, floorSurface } from "@/core/space/level";
import { adjustLevels, SurveyError, type Levels } from "@/core/space/survey";
import { formatNumber, readFigure } from "@/core/units";
import { NumberField } from "../book/fields";
import { Button } from "../primitives/button";

/** A line laser of a shop, and a rule read by eye; the shop's own figures can be written over them. */
const LASER = { levelMmPerM: 0.2, readMm: 0.5 };
/** Spots that are proposed lie about so far apart, mm. */
const APART_MM = 1800;

/** What the readings so far make of the floor; why they make none. */
export function levelsOf(bay: Bay): { levels: Levels | null; lacks: string | null } {
  if (!bay.floor) return { levels: null, lacks: null };
  try {
    return { levels: adjustLevels(bay.floor.spots, bay.floor.setups), lacks: null };
  } catch (error) {
    if (error instanceof SurveyError) return { levels: null, lacks: error.message };
    throw error;
  }
}

/** The floor of a bay is read spot by spot: which is next, what was read, and what it makes. */
export function FloorSurvey({
  bay,
  held,
  today,
  readOnly,
  onHold,
  onChange,
}: {
  bay: Bay;
  held: Hold | null;
  today: string;
  readOnly: boolean;
  onHold: (hold: Hold | null) => void;
  onChange: (where: string, bay: Bay) => void;
}) {
  const [setup, setSetup] = useState(0);
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const { floor } = bay;
  if (!floor)
    return (
      <div className="flex flex-col gap-3">
        <p className="text-lg">
          The floor is not surveyed: whether it is level enough where a vehicle stands is not known.
        </p>
        {!readOnly && (
          <Button
            look="act"
            size="large"
            onClick={() =>
              onChange("survey", {
                ...bay,
                floor: {
                  on: today,
                  spots: spotsOver(bay, APART_MM),
                  setups: [{ ...LASER, readings: [] }],
                },
              })
            }
          >
            Lay out spots over the floor
          </Button>
        )}
      </div>
    );
  const now = Math.min(setup, floor.setups.length - 1);
  const own = floor.setups[now];
  const readOf = (spot: number): number | undefined =>
    own?.readings.find((r) => r.spot === spot)?.mm;
  const unread = floor.spots.map((_, i) => i).filter((i) => readOf(i) === undefined);
  const spot = held?.kind === "spot" ? held.i : (unread[0] ?? 0);
  const putSetup = (where: string, patch: Partial<NonNullable<typeof own>>): void =>
    onChange(where, {
      ...bay,
      floor: {
        ...floor,
        on: today,
        setups: floor.setups.map((s, i) => (i === now ? { ...s, ...patch } : s)),
      },
    });
  const read = (): void => {
    const figure = readFigure(text, "mm", "the rule reading");
    if (!figure.ok) return setProblem(figure.problem);
    const others = own!.readings.filter((r) => r.spot !== spot);
    putSetup(`read/${spot}`, { readings: [...others, { spot, mm: figure.value }] });
    setText("");
    setProblem(null);
    const next = unread.find((i) => i > spot) ?? unread.find((i) => i !== spot);
    onHold(next === undefined ? null : { kind: "spot", i: next });
  };
  const moveLaser = (): void => {
    onChange("laser", {
      ...bay,
      floor: { ...floor, setups: [...floor.setups, { ...(own ?? LASER), readings: [] }] },
    });
    setSetup(floor.setups.length);
    onHold(null);
  };
  return (
    <div className="flex flex-col gap-3">
      {!readOnly && own && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            read();
          }}
        >
          <label htmlFor="rule-reading" className="text-xl font-semibold">
            Rule on spot {spot + 1}: where does the line cut it?
          </label>
          <span className="flex items-baseline gap-3">
            <input
              id="rule-reading"
              inputMode="decimal"
              autoComplete="off"
              value={text}
              placeholder={readOf(spot) === undefined ? "" : formatNumber(readOf(spot)!, 1)}
              aria-invalid={problem !== null}
              onChange={(e) => setText(e.target.value)}
              className="figure min-h-16 w-full min-w-0 border-b-2 border-ink bg-transparent px-1 text-3xl font-semibold outline-none focus:border-act"
            />
            <span className="text-lg text-soft">mm</span>
            <Button look="act" type="submit">
              Read
            </Button>
          </span>
          <p role="alert" className="text-base text-stop">
            {problem}
          </p>
          <p className="text-base text-soft">
            {unread.length === 0
              ? "Every spot is read from this place of the laser."
              : `${unread.length} of ${floor.spots.length} still to read. A glossy floor: lay a card under the rule.`}
          </p>
        </form>
      )}
      <div
        className="flex flex-wrap items-center gap-1"
        role="group"
        aria-label="Places of the laser"
      >
        {floor.setups.map((s, i) => (
          <Button
            key={i}
            look={i === now ? "lit" : "tool"}
            aria-pressed={i === now}
            onClick={() => setSetup(i)}
          >
            Laser place {i + 1}: {s.readings.length}
          </Button>
        ))}
        {!readOnly && (
          <Button look="quiet" disabled={!own || own.readings.length === 0} onClick={moveLaser}>
            The laser was moved
          </Button>
        )}
      </div>
      {own && (
        <div className="grid grid-cols-2 gap-x-5">
          <NumberField
            label="Laser, askew at the most mm a metre"
            unit=""
            path=""
            problem={null}
            readOnly={readOnly}
            value={own.levelMmPerM}
            onChange={(v) => typeof v === "number" && putSetup("level", { levelMmPerM: v })}
          />
          <NumberField
            label="A rule is read to"
            unit="mm"
            path=""
            problem={null}
            readOnly={readOnly}
            value={own.readMm}
            onChange={(v) => typeof v === "number" && putSetup("rule", { readMm: v })}
          />
        </div>
      )}
      <FloorSays bay={bay} />
    </div>
  );
}

/** What the readings make of the floor. */
function FloorSays({ bay }: { bay: Bay }) {
  const { levels, lacks } = levelsOf(bay);
  const surface = levels && floorSurface(bay);
  if (!levels || !surface)
    return (
      <p className="text-base text-soft">{lacks ?? "The spots lie in one line: read others."}</p>
    );
  const heights = levels.heights.map((h) => h.heightMm);
  const grid = floorGrid(bay, surface);
  const { suspect } = levels;
  return (
    <div className="border-t-2 border-ink pt-2 text-lg" role="status">
      {suspect ? (
        <p className="text-loose">
          Spot {suspect.spot + 1} from laser place {suspect.setup + 1} does not agree: it is{" "}
          {formatNumber(Math.abs(suspect.residualMm), 1)} mm off the others. Read it again.
        </p>
      ) : (
        <p>
          {levels.readings.some((r) => r.redundancy > 0.1)
            ? "The readings agree."
            : "Nothing checks these readings yet: read some spots again from another place of the laser."}
        </p>
      )}
      <p className="text-base text-soft">
        From {formatNumber(Math.min(...heights), 1)} to {formatNumber(Math.max(...heights), 1)} mm;
        uneven by about {formatNumber(surface.unevenMm, 1)} mm; nowhere steeper than{" "}
        {formatNumber((Math.atan(grid.steepestPerMm) * 180) / Math.PI, 1)}°.
      </p>
    </div>
  );
}

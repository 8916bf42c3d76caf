import { upcastSheet, targetsOf, type Sheet } from "@/core/sheet";
import { degToRad } from "@/core/units";
import { recordSchema, type JobRecord, type TargetRecord } from "./schema";
import { record1Schema, type JobRecord1 } from "./schema-1";

/**
 * Reads a kept record of any format as one of today's, for the screen and the report. What is kept
 * stays as it was made.
 *
 * @throws ZodError when it is no record
 */
export function readRecord(json: unknown): JobRecord {
  const first = record1Schema.safeParse(json);
  return first.success ? upcastRecord(first.data) : recordSchema.parse(json);
}

/**
 * A record of the first format knew one set-out: the place the board stood at last, and what was
 * accepted at places before it. All its readings are shown with the last one, as they were then.
 */
function upcastRecord(r: JobRecord1): JobRecord {
  const { setOut, run, owed, format: _, ...rest } = r;
  const sheet = upcastSheet(owed.sheet) as Sheet;
  const targets = targetsOf(sheet).map((target): TargetRecord => {
    const { tolerance } = target;
    // That format knew its places by their names alone.
    const here = target.name === setOut.place.name;
    const earlier = setOut.earlier.findLast((e) => e.place === target.name);
    const held = here ? setOut.settled : earlier;
    const sigma = here ? setOut.settled?.sigma : undefined;
    const one = (id: string, error: number, known: number | undefined, half = Infinity) => ({
      id,
      unit: id === "twist" ? ("rad" as const) : ("mm" as const),
      error,
      // Of a place before the last it only said where it was.
      sigma: known ?? null,
      lower: -half,
      upper: half,
    });
    return {
      id: target.id,
      name: target.name,
      setup: sheet.setups.find((s) => s.targets.includes(target))!.name,
      stand: here ? setOut.stand : (earlier?.stand ?? null),
      way: setOut.way,
      lines: here ? setOut.lines : [],
      readings: here ? setOut.readings : [],
      moves: here ? setOut.moves : [],
      touches: here ? setOut.touches : [],
      settled: held
        ? {
            at: held.at,
            by: held.by,
            chance: held.chance,
            quantities: [
              one("along", held.alongMm, sigma?.alongMm, tolerance.alongMm),
              one("across", held.acrossMm, sigma?.acrossMm, tolerance.acrossMm),
              one(
                "twist",
                held.twistRad,
                sigma?.twistRad,
                degToRad(tolerance.twistDeg ?? Infinity),
              ),
              one("height", held.heightMm, sigma?.heightMm, tolerance.heightMm),
            ],
          }
        : null,
    };
  });
  return {
    ...rest,
    format: "iridel.record/2",
    owed: { done: owed.done, lines: owed.lines },
    calibrations: [{ id: sheet.id, reason: owed.reason, sheet, targets, run }],
  };
}

import {
  intakeSchema,
  judgeTarget,
  planFor,
  scopedLog,
  viewOf,
  type EventBody,
  type JobEvent,
} from "@/core/job";
import { readingSigma, slotsFor } from "@/core/setout";
import { SHEETS } from "@/demo/data/sheets";
import { SURROUND } from "@/demo/data/surround";
import { measure, openBay } from "@/devices/bench/world";
import { groundOf, INTAKE } from "@/tests/fixtures";

const READ = {
  board: [
    "tape-fl-l",
    "tape-fr-r",
    "tape-fl-r",
    "tape-fr-l",
    "laser-badge",
    "height-rule",
    "height-scale",
    "tape-rl-l",
    "tape-rr-r",
  ],
  mat: ["mat-beside-front", "mat-beside-rear", "mat-abeam", "mat-rear-front", "mat-front-rear"],
};

/** A job's log of a board, or of a board and two mats: from the log to verdict and next act. */
export function job(median: (rounds: number, work: () => unknown) => number): void {
  const forward = SHEETS.find((s) => s.id === "tarn-forward")!;
  const intake = {
    ...intakeSchema.parse(INTAKE),
    rearToeDeg: { left: 0.1, right: 0.12 },
  };
  const one = groundOf(intake, 2, forward);
  const all = {
    ...one,
    calibrations: [...one.calibrations, { id: SURROUND.id, sheet: SURROUND, stand: one.stand }],
  };
  const targets = [
    { calibrationId: forward.id, targetId: "first", times: 1 },
    ...SURROUND.setups[0]!.targets.map((t) => ({
      calibrationId: SURROUND.id,
      targetId: t.id,
      times: 3,
    })),
  ];
  const bodies = targets.flatMap(({ calibrationId, targetId, times }): EventBody[] => {
    const plan = planFor(viewOf(all, calibrationId), [], targetId);
    const world = openBay("bench-job", plan);
    return Array.from({ length: times }, (_, n) => n).flatMap((n) =>
      READ[plan.target.kind as keyof typeof READ].map((slotId): EventBody => {
        const slot = slotsFor(plan).find((s) => s.id === slotId)!;
        const instrument = plan.instruments.find((i) => i.kind === slot.instrument)!;
        const shown = measure(world, slotId, n);
        return {
          kind: "reading",
          calibrationId,
          targetId,
          slotId,
          typed: String(shown),
          shown,
          sigma: readingSigma(instrument, slot, shown),
          instrumentId: instrument.id,
        };
      }),
    );
  });
  const by = { id: "ines", name: "Ines Tarbet", initials: "IT" };
  const logOf = (list: readonly EventBody[]): JobEvent[] =>
    scopedLog(
      all,
      [{ kind: "taken-in" as const, intake }, ...list].map((body, i) => ({
        id: `e${i}`,
        seq: i + 1,
        at: new Date(Date.UTC(2026, 10, 3, 9, 0, i)).toISOString(),
        by,
        body,
      })),
    );
  const short = logOf(bodies.slice(0, READ.board.length));
  const long = logOf(bodies);
  const first = viewOf(all, forward.id);
  const around = viewOf(all, SURROUND.id);
  console.log(`a job’s log: one target, ${READ.board.length} readings`);
  console.log(
    `  a reading to its verdict and the next act    ${median(200, () => judgeTarget(one, short, "first")).toFixed(2)} ms`,
  );
  console.log(`a job’s log: a board and two mats, ${bodies.length} readings`);
  console.log(
    `  a reading to its verdict and the next act    ${median(100, () => judgeTarget(around, long, "mat-right")).toFixed(2)} ms; the board’s ${median(100, () => judgeTarget(first, long, "first")).toFixed(2)} ms`,
  );
}

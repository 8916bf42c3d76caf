import type { Stand } from "@/core/setout";
import { formatNumber } from "@/core/units";

/** What the morning's zero check reads, in the order it is walked. */
export const ZERO_READINGS = [
  {
    id: "scale",
    name: "height scale on the stand",
    say: "Crank the board to where the rule is easy to read, and read the stand’s own scale.",
  },
  {
    id: "rule",
    name: "rule, board centre to floor",
    say: "Rule from the floor to the centre of the board, without cranking.",
  },
  {
    id: "left",
    name: "tape, board centre to the left hook",
    say: "Tape from the centre mark of the board to the hook on its vehicle-left side.",
  },
  {
    id: "right",
    name: "tape, board centre to the right hook",
    say: "Tape from the centre mark to the hook on its vehicle-right side.",
  },
  {
    id: "dot",
    name: "laser dot beside the plumb line, three metres out",
    say: "Hang a plumb line three metres in front of the board’s centre and read how far the dot lands beside it; left is plus.",
  },
] as const;
type ReadingId = (typeof ZERO_READINGS)[number]["id"];

export type ZeroJudgement = {
  ok: boolean;
  lines: { name: string; off: number; allowed: number; ok: boolean }[];
  words: string;
};

/**
 * Allowed departures, mm: a stand beyond them is not used until it is put right or measured anew.
 */
const ALLOWED = { scale: 2, length: 2, middle: 2, dot: 3 };

/**
 * Judges a stand against its own recorded dimensions: the scale's offset, the beam's half-length on
 * both sides, the board's centre between the hooks, the laser square to the beam.
 *
 * @param readings mm, all five of {@link ZERO_READINGS}
 */
export function judgeZero(stand: Stand, readings: Record<ReadingId, number>): ZeroJudgement {
  const line = (name: string, off: number, allowed: number) => ({
    name,
    off,
    allowed,
    ok: Math.abs(off) <= allowed,
  });
  const lines = [
    line("height scale", readings.rule - readings.scale - stand.scaleOffsetMm, ALLOWED.scale),
    line(
      "beam length, hook to hook",
      readings.left + readings.right - 2 * stand.beamHalfMm,
      2 * ALLOWED.length,
    ),
    line("board centre between the hooks", (readings.left - readings.right) / 2, ALLOWED.middle),
    line("laser square to the beam", readings.dot, ALLOWED.dot),
  ];
  const bad = lines.filter((l) => !l.ok);
  const words =
    bad.length === 0
      ? "zero check passed"
      : bad.map((l) => `${l.name} off by ${formatNumber(Math.abs(l.off), 1)} mm`).join("; ");
  return { ok: bad.length === 0, lines, words };
}

import { CORNERS, SIDES, type CornerId, type SideId } from "@/core/surround/names";
import { formatNumber } from "@/core/units";
import type { Judgement } from "./judgement";

/** How the four seams and the four pictures are called. */
export const SEAM_NAMES: Record<CornerId, string> = {
  "front-left": "front left",
  "front-right": "front right",
  "rear-left": "rear left",
  "rear-right": "rear right",
};

type Values = Readonly<Record<string, number>>;

/** Ids of the two steps of a seam, and of what says that a picture bends straight lines. */
export const alongId = (c: CornerId): string => `${c}-along`;
export const acrossId = (c: CornerId): string => `${c}-across`;
export const bentId = (s: SideId): string => `bent-${s}`;

/** The ids of all steps. */
export const STEP_IDS = CORNERS.flatMap((c) => [alongId(c), acrossId(c)]);

/** "12 mm out": a step of lines along the car, said from the car. */
export const acrossWords = (c: CornerId, mm: number): string =>
  `${formatNumber(Math.abs(mm))} mm ${mm > 0 === c.endsWith("left") ? "out" : "in"}`;
/** "8 mm forward": a step of lines across the car. */
export const alongWords = (mm: number): string =>
  `${formatNumber(Math.abs(mm))} mm ${mm > 0 ? "forward" : "back"}`;

/** Judges the steps of a joined picture against what the sheet allows of each. */
export function judgeSeams(limitMm: number, values: Values): Judgement {
  const lines = CORNERS.flatMap((c) =>
    (
      [
        ["lines along", values[acrossId(c)]!, acrossWords(c, values[acrossId(c)]!)],
        ["lines across", values[alongId(c)]!, alongWords(values[alongId(c)]!)],
      ] as const
    ).map(([of, mm, words]) => ({
      name: `${SEAM_NAMES[c]}, ${of}`,
      value: mm === 0 ? "joins" : words,
      wanted: `within ${formatNumber(limitMm)} mm`,
      ok: Math.abs(mm) <= limitMm,
      mm: Math.abs(mm),
    })),
  );
  const bent = SIDES.filter((s) => values[bentId(s)] === 1);
  const worst = lines.reduce((a, b) => (b.mm > a.mm ? b : a));
  const ok = lines.every((l) => l.ok) && bent.length === 0;
  return {
    ok,
    headline:
      bent.length > 0
        ? `lines are bent in the ${bent.join(" and the ")} picture`
        : ok
          ? worst.mm === 0
            ? "every line runs through its seam"
            : `largest step ${worst.value}, ${worst.name}`
          : `${worst.name}: a step of ${worst.value}`,
    lines: [
      ...lines.map(({ name, value, wanted, ok: fine }) => ({ name, value, wanted, ok: fine })),
      ...bent.map((s) => ({
        name: `lines in the ${s} picture`,
        value: "bent",
        wanted: "straight",
        ok: false,
      })),
    ],
  };
}

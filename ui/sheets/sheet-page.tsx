"use client";

import { breachWords, conditionWords, enoughWords } from "@/core/drive/words";
import type { ReactNode } from "react";
import { EVENTS } from "@/core/owed";
import {
  CAUTION_MOMENTS,
  datumName,
  distanceName,
  fieldName,
  ownLimitWords,
  placeName,
  standingWith,
  targetsOf,
  type Picture,
  type Sheet,
  type Target,
} from "@/core/sheet";
import { isByHand, REFERENCES } from "@/core/setout";
import { dayInWords, formatNumber } from "@/core/units";
import { Big, BookDocument, Numbered, type DocumentPage } from "../book/document-page";
import { Pictures } from "../photos/pictures";
import { Facts } from "../primitives/paper";
import { SHEET_SIGNATURES } from "./signatures";

const METHOD_WORDS: Record<Sheet["method"], string> = {
  static: "Drive",
  "static-then-dynamic": "Then a drive",
  "static-or-dynamic": "Or a drive",
  dynamic: "A drive alone",
};

/** What is asked of a drive, a line for each condition, with what a breach does. */
const driveItems = (drive: NonNullable<Sheet["drive"]>): string[] => [
  ...drive.conditions.map((c) => `${conditionWords(c)}; else it ${breachWords(c)}`),
  `${enoughWords(drive)} of it`,
];

const allowed = (value: number | undefined, decimals = 0, unit = ""): string =>
  value === undefined ? "limited by what follows" : `± ${formatNumber(value, decimals)}${unit}`;

/** The figures of a target that are looked for first. */
function figuresOf(t: Target): { name: string; value: string; note: string }[] {
  const { placement, tolerance, measuredTo } = t;
  const mm = (v: number): string => `${formatNumber(v)} mm`;
  return [
    {
      name: `${placement.alongMm < 0 ? "Behind" : "Ahead of"} ${distanceName(t)}${measuredTo?.along === "beam-back" ? `, to ${REFERENCES.along["beam-back"]}` : ""}`,
      value: mm(Math.abs(placement.alongMm)),
      note: allowed(tolerance.alongMm),
    },
    {
      name: t.line ? `Out from the ${datumName(t)}` : `Across the ${datumName(t)}`,
      value: mm(t.line ? Math.abs(placement.acrossMm) : placement.acrossMm),
      note: allowed(tolerance.acrossMm),
    },
    ...(t.line
      ? []
      : [
          {
            name: "Twist",
            value: `${formatNumber(placement.twistDeg, 2)}°`,
            note: allowed(tolerance.twistDeg, 2, "°"),
          },
        ]),
    ...(isByHand(t)
      ? []
      : [
          {
            name:
              measuredTo?.height && measuredTo.height !== "centre"
                ? `Height: ${REFERENCES.height[measuredTo.height]}`
                : "Centre above the floor",
            value: mm(placement.heightMm),
            note: allowed(tolerance.heightMm),
          },
        ]),
  ];
}

/** A board or a mat by its label and its size. */
function objectWords({ object, line }: Target): string {
  if (line)
    return `vehicle ${object.side}, on the line through the ${line.from} and the ${line.through} hub of that side`;
  const { code, widthMm, lengthMm, aheadMm, side, version } = object;
  return [
    code,
    lengthMm === undefined
      ? `${formatNumber(widthMm)} mm wide`
      : `${formatNumber(lengthMm)} by ${formatNumber(widthMm)} mm, ${formatNumber(aheadMm ?? 0)} of it ahead of its cross line`,
    ...(side ? [`vehicle ${side}`] : []),
    ...(version ? [`version ${version}`] : []),
  ].join(", ");
}

/** A check or a step, and what hangs at it. */
const shown = (words: string, pictures: readonly Picture[] | undefined): ReactNode => (
  <>
    {words}
    <Pictures pictures={pictures} />
  </>
);

/** A step as it is said, and after what it is asked where that is not always. */
const stepWords = ({ say, only }: Sheet["run"][number]): string =>
  only
    ? `${say} (Only after: ${only.map((e) => EVENTS[e].charAt(0).toLowerCase() + EVENTS[e].slice(1)).join(", ")}.)`
    : say;

/** What targets have to be to each other, in words. */
const relationsOf = (s: Sheet): string[] =>
  s.setups.flatMap((setup) =>
    (setup.relations ?? []).map((r) => {
      const [a, b] = r.of.map((id) => placeName(s, id)) as [string, string];
      switch (r.kind) {
        case "spacing":
          return `${a} and ${b}: ${formatNumber(r.minMm)} to ${formatNumber(r.maxMm)} mm between their middles`;
        case "parallel":
          return `${a} and ${b}: parallel, ± ${formatNumber(r.toleranceDeg, 2)}°`;
        case "equal-distance":
          return `${a} and ${b}: equally far from the wheels, ± ${formatNumber(r.toleranceMm)} mm`;
      }
    }),
  );

/** How a target after the first stands with the others. */
const standsWords = (s: Sheet, t: Target): string => {
  if (t.beam) return ", on the same beam";
  return !isByHand(t) && standingWith(s, t.id).length > 1 ? ", beside the one before" : "";
};

/** One sheet as it is used. */
export function SheetPage(page: DocumentPage<Sheet>) {
  const s = page.doc;
  const [first, ...more] = targetsOf(s);
  return (
    <BookDocument
      {...page}
      title={s.title}
      href="/sheets"
      signatures={SHEET_SIGNATURES}
      nameOf={fieldName}
    >
      <p className="mb-4 max-w-[70ch] text-xl leading-snug">{s.reason}</p>
      {first && (
        <div className="mb-4 grid grid-cols-2 gap-x-3 gap-y-3 border-y-2 sm:gap-x-8 border-ink py-3 lg:grid-cols-4">
          {figuresOf(first).map((f) => (
            <Big key={f.name} {...f} />
          ))}
        </div>
      )}
      <Facts
        facts={[
          ["Owed after", s.appliesTo.after.map((e) => EVENTS[e]).join(", ")],
          ...(first
            ? ([
                [
                  { board: "Board", mat: "Mat", mark: "Floor mark" }[first.kind],
                  objectWords(first),
                ],
              ] as [string, ReactNode][])
            : []),
          ...(first?.ownLimit ? ([["Limits", ownLimitWords(first)]] as [string, ReactNode][]) : []),
          ...(relationsOf(s).length > 0
            ? ([["To each other", <Numbered key="e" items={relationsOf(s)} />]] as [
                string,
                ReactNode,
              ][])
            : []),
          ...(first &&
          !isByHand(first) &&
          (first.tolerance.pitchDeg !== undefined || first.tolerance.rollDeg !== undefined)
            ? ([
                [
                  "Upright",
                  `${first.upright === "vehicle-plane" ? "square to the vehicle’s plane" : "plumb and level"}${first.tolerance.pitchDeg === undefined ? "" : `, lean ± ${formatNumber(first.tolerance.pitchDeg, 2)}°`}${first.tolerance.rollDeg === undefined ? "" : `, level ± ${formatNumber(first.tolerance.rollDeg, 2)}°`}`,
                ],
              ] as [string, ReactNode][])
            : []),
          ...(more.length > 0
            ? ([
                [
                  "Then also at",
                  <Numbered
                    key="o"
                    items={more.map(
                      (p) =>
                        `${p.name}: ${formatNumber(Math.abs(p.placement.alongMm))} ${p.placement.alongMm < 0 ? "behind" : "ahead"}, ${formatNumber(p.placement.acrossMm)} across, ${{ mark: "", mat: "mat ", board: `${formatNumber(p.placement.heightMm)} up, board ` }[p.kind]}${p.object.code}${standsWords(s, p)}`,
                    )}
                  />,
                ],
              ] as [string, ReactNode][])
            : []),
          [
            "Cautions",
            <Numbered
              key="c"
              items={s.cautions.map((x) => `${CAUTION_MOMENTS[x.when]}: ${x.say}`)}
            />,
          ],
          ["Ready", <Numbered key="r" items={s.ready.map((i) => shown(i.ask, i.pictures))} />],
          ["Run", <Numbered key="s" items={s.run.map((i) => shown(stepWords(i), i.pictures))} />],
          ...(s.drive
            ? ([[METHOD_WORDS[s.method], <Numbered key="d" items={driveItems(s.drive)} />]] as [
                string,
                ReactNode,
              ][])
            : []),
          ["Prove", <Numbered key="p" items={s.prove.map((i) => shown(i.ask, i.pictures))} />],
          ["Source", `${s.source.name}, ${dayInWords(s.source.date)}`],
          ["Entered by", s.source.enteredBy],
          [
            "Checked by",
            s.source.checkedOn
              ? `${s.source.checkedBy} on ${dayInWords(s.source.checkedOn)}`
              : "nobody yet",
          ],
        ]}
      />
    </BookDocument>
  );
}

"use client";

import type { ReactNode } from "react";
import { EVENTS } from "@/core/owed";
import {
  CAUTION_MOMENTS,
  DISTANCE_FROM_NAMES,
  fieldName,
  standingWith,
  targetsOf,
  type Sheet,
  type Target,
} from "@/core/sheet";
import { REFERENCES } from "@/core/setout";
import { formatNumber } from "@/core/units";
import { DATUM_NAMES } from "@/core/vehicle";
import { Big, BookDocument, Numbered, type DocumentPage } from "../book/document-page";
import { Facts } from "../primitives/paper";
import { SHEET_SIGNATURES } from "./signatures";

/** One sheet as it is used. */
export function SheetPage(page: DocumentPage<Sheet>) {
  const s = page.doc;
  const [first, ...more] = targetsOf(s) as [Target, ...Target[]];
  return (
    <BookDocument
      {...page}
      title={s.title}
      href="/sheets"
      signatures={SHEET_SIGNATURES}
      nameOf={fieldName}
    >
      <p className="mb-4 max-w-[70ch] text-xl leading-snug">{s.reason}</p>
      <div className="mb-4 grid grid-cols-2 gap-x-3 gap-y-3 border-y-2 sm:gap-x-8 border-ink py-3 lg:grid-cols-4">
        <Big
          name={`Ahead of ${DISTANCE_FROM_NAMES[first.distanceFrom]}${first.measuredTo?.along === "beam-back" ? `, to ${REFERENCES.along["beam-back"]}` : ""}`}
          value={`${formatNumber(first.placement.alongMm)} mm`}
          note={`± ${formatNumber(first.tolerance.alongMm)}`}
        />
        <Big
          name={`Across the ${DATUM_NAMES[first.datum]}`}
          value={`${formatNumber(first.placement.acrossMm)} mm`}
          note={`± ${formatNumber(first.tolerance.acrossMm)}`}
        />
        <Big
          name="Twist"
          value={`${formatNumber(first.placement.twistDeg, 2)}°`}
          note={`± ${formatNumber(first.tolerance.twistDeg, 2)}°`}
        />
        <Big
          name={
            first.measuredTo?.height && first.measuredTo.height !== "centre"
              ? `Height: ${REFERENCES.height[first.measuredTo.height]}`
              : "Centre above the floor"
          }
          value={`${formatNumber(first.placement.heightMm)} mm`}
          note={`± ${formatNumber(first.tolerance.heightMm)}`}
        />
      </div>
      <Facts
        facts={[
          ["Owed after", s.appliesTo.after.map((e) => EVENTS[e]).join(", ")],
          [
            "Board",
            `${first.object.code}, ${formatNumber(first.object.widthMm)} mm wide${first.object.side ? `, vehicle ${first.object.side}` : ""}${first.object.version ? `, version ${first.object.version}` : ""}`,
          ],
          ...(first.tolerance.pitchDeg !== undefined || first.tolerance.rollDeg !== undefined
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
                        `${p.name}: ${formatNumber(p.placement.alongMm)} ahead, ${formatNumber(p.placement.acrossMm)} across, ${formatNumber(p.placement.heightMm)} up, board ${p.object.code}${standingWith(s, p.id).length > 1 ? ", beside the one before" : ""}`,
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
          ["Ready", <Numbered key="r" items={s.ready.map((i) => i.ask)} />],
          ["Run", <Numbered key="s" items={s.run.map((i) => i.say)} />],
          ["Prove", <Numbered key="p" items={s.prove.map((i) => i.ask)} />],
          ["Source", `${s.source.name}, ${s.source.date}`],
          ["Entered by", s.source.enteredBy],
          ["Checked by", `${s.source.checkedBy} on ${s.source.checkedOn}`],
        ]}
      />
    </BookDocument>
  );
}

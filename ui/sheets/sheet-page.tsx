"use client";

import type { ReactNode } from "react";
import { EVENTS } from "@/core/owed";
import { DISTANCE_FROM_NAMES, type Sheet } from "@/core/sheet";
import { formatNumber } from "@/core/units";
import { DATUM_NAMES } from "@/core/vehicle";
import { Big, BookDocument, Numbered, type DocumentPage } from "../book/document-page";
import { Facts } from "../primitives/paper";
import { SHEET_SIGNATURES } from "./signatures";

/** One sheet as it is used. */
export function SheetPage(page: DocumentPage<Sheet>) {
  const s = page.doc;
  return (
    <BookDocument {...page} title={s.title} href="/sheets" signatures={SHEET_SIGNATURES}>
      <p className="mb-4 max-w-[70ch] text-xl leading-snug">{s.reason}</p>
      <div className="mb-4 grid grid-cols-2 gap-x-3 gap-y-3 border-y-2 sm:gap-x-8 border-ink py-3 lg:grid-cols-4">
        <Big
          name={`Ahead of ${DISTANCE_FROM_NAMES[s.distanceFrom]}`}
          value={`${formatNumber(s.placement.alongMm)} mm`}
          note={`± ${formatNumber(s.tolerance.alongMm)}`}
        />
        <Big
          name={`Across the ${DATUM_NAMES[s.datum]}`}
          value={`${formatNumber(s.placement.acrossMm)} mm`}
          note={`± ${formatNumber(s.tolerance.acrossMm)}`}
        />
        <Big
          name="Twist"
          value={`${formatNumber(s.placement.twistDeg, 2)}°`}
          note={`± ${formatNumber(s.tolerance.twistDeg, 2)}°`}
        />
        <Big
          name="Centre above the floor"
          value={`${formatNumber(s.placement.heightMm)} mm`}
          note={`± ${formatNumber(s.tolerance.heightMm)}`}
        />
      </div>
      <Facts
        facts={[
          ["Owed after", s.appliesTo.after.map((e) => EVENTS[e]).join(", ")],
          [
            "Board",
            `${s.board.code}, ${formatNumber(s.board.widthMm)} mm wide${s.board.side ? `, vehicle ${s.board.side}` : ""}${s.board.version ? `, version ${s.board.version}` : ""}`,
          ],
          ...(s.tolerance.pitchDeg !== undefined || s.tolerance.rollDeg !== undefined
            ? ([
                [
                  "Upright",
                  `${s.upright === "vehicle-plane" ? "square to the vehicle’s plane" : "plumb and level"}${s.tolerance.pitchDeg === undefined ? "" : `, lean ± ${formatNumber(s.tolerance.pitchDeg, 2)}°`}${s.tolerance.rollDeg === undefined ? "" : `, level ± ${formatNumber(s.tolerance.rollDeg, 2)}°`}`,
                ],
              ] as [string, ReactNode][])
            : []),
          ...(s.positions
            ? ([
                [
                  "Then also at",
                  <Numbered
                    key="o"
                    items={s.positions.map(
                      (p) =>
                        `${p.name}: ${formatNumber(p.placement.alongMm)} ahead, ${formatNumber(p.placement.acrossMm)} across, ${formatNumber(p.placement.heightMm)} up${p.board ? `, board ${p.board.code}` : ""}${p.beside ? ", beside the one before" : ""}`,
                    )}
                  />,
                ],
              ] as [string, ReactNode][])
            : []),
          ["Cautions", <Numbered key="c" items={s.cautions} />],
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

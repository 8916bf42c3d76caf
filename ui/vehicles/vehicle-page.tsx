"use client";

import type { ComponentProps } from "react";
import { PLACES, SYSTEMS } from "@/core/owed";
import { dayInWords, formatNumber } from "@/core/units";
import { CORNER_NAMES, CORNERS, vehicleFieldName, type Vehicle } from "@/core/vehicle";
import { Big, BookDocument, type DocumentPage } from "../book/document-page";
import { Facts } from "../primitives/paper";
import { LearnedTable } from "./learned-table";
import { VehiclePlan } from "./plan";
import { VEHICLE_SIGNATURES } from "./signatures";

/** One kind of vehicle as the shop measured it. */
export function VehiclePage({
  learned,
  propose,
  ...page
}: DocumentPage<Vehicle> & {
  /** What the shop's own cars say of this version; null for an old one. */
  learned: ComponentProps<typeof LearnedTable>["learned"] | null;
  propose: DocumentPage<Vehicle>["newVersion"];
}) {
  const v = page.doc;
  const place = (p: Vehicle["camera"]): string =>
    `${formatNumber(Math.abs(p.xMm))} ${p.xMm < 0 ? "behind" : "ahead of"} the rear axle, ${p.yMm === 0 ? "in the middle" : `${formatNumber(Math.abs(p.yMm))} to vehicle ${p.yMm > 0 ? "left" : "right"}`}, ${formatNumber(p.zMm)} up`;
  return (
    <BookDocument
      {...page}
      title={`${v.make} ${v.model}`}
      href="/vehicles"
      signatures={VEHICLE_SIGNATURES}
      nameOf={vehicleFieldName}
    >
      <p className="text-lg text-soft">
        {v.variant}, driver on the vehicle {v.driverSide}, VIN begins {v.vinStart}
      </p>
      <div className="grid items-center gap-x-8 gap-y-3 lg:grid-cols-[1fr_260px]">
        <VehiclePlan vehicle={v} />
        <div className="grid grid-cols-2 gap-x-6 gap-y-3 lg:grid-cols-1">
          <Big name="Wheelbase" value={`${formatNumber(v.wheelbaseMm)} mm`} />
          <Big name="Camera above the floor" value={`${formatNumber(v.camera.zMm)} mm`} />
          <Big
            name="Hub height"
            value={`${formatNumber(v.hubHeightMm)} mm`}
            note={`caps stand out ${formatNumber(v.hubCapOutMm)}`}
          />
        </div>
      </div>
      <Facts
        facts={[
          [
            "Fitted",
            v.fitted
              .map((f) => `${SYSTEMS[f.system]} (${f.places.map((p) => PLACES[p]).join(", ")})`)
              .join("; "),
          ],
          [
            "Asked at take-in",
            v.questions
              .map((q) => `${q.ask} ${q.choices.map((c) => c.name).join(" / ")}`)
              .join("  ") || "nothing",
          ],
          ["Camera", place(v.camera)],
          ["Badges", `front ${place(v.frontBadge)}; rear ${place(v.rearBadge)}`],
          ...(v.furtherAxles ?? []).map((a): [string, string] => [
            a.name,
            `${formatNumber(Math.abs(a.aheadMm))} mm ${a.aheadMm < 0 ? "behind" : "ahead of"} the rear axle, ${formatNumber(a.hubHalfMm)} from the middle to the caps`,
          ]),
          ...(v.centreMarks ?? []).map((m): [string, string] => [
            "Further mark",
            `${m.name}, ${place(m)}, known to ± ${formatNumber(m.sigmaMm, 1)} mm`,
          ]),
          [
            "Arch heights",
            CORNERS.map((c) => `${CORNER_NAMES[c]} ${formatNumber(v.archMm[c])}`).join(", "),
          ],
          [
            "Placard, half load",
            `front ${v.placardKPa.half.front}, rear ${v.placardKPa.half.rear} kPa`,
          ],
          [
            "Placard, full load",
            `front ${v.placardKPa.full.front}, rear ${v.placardKPa.full.rear} kPa`,
          ],
          [
            "Tyres",
            v.tyres.front === v.tyres.rear
              ? v.tyres.front
              : `front ${v.tyres.front}, rear ${v.tyres.rear}`,
          ],
          [
            "Glass",
            `${v.glass.makerPart}${v.glass.equivalentParts.length > 0 ? `, equivalent ${v.glass.equivalentParts.join(", ")}` : ""}; bracket may turn ${formatNumber(v.glass.limitDeg, 2)}°`,
          ],
          ["Gateway", v.gateway ? "locked: writing needs a sign-in" : "none"],
          ["Tank", v.tankLitres > 0 ? `${formatNumber(v.tankLitres)} litres` : "none"],
          [
            "Places known to",
            `hubs ± ${formatNumber(v.hubSigmaMm, 1)} mm, badges ± ${formatNumber(v.badgeSigmaMm, 1)} mm`,
          ],
          ...(v.alignment
            ? ([
                [
                  "Rear axle",
                  `thrust ± ${formatNumber(v.alignment.thrustDeg, 2)}°, toe of each wheel ${formatNumber(v.alignment.toeMinDeg, 2)} to ${formatNumber(v.alignment.toeMaxDeg, 2)}°`,
                ],
              ] as [string, string][])
            : []),
          ...(v.trailer
            ? ([
                [
                  "Trailer",
                  `${v.trailer.name}: hitch ${formatNumber(v.trailer.hitchBehindMm)} mm behind the rear hubs, ${formatNumber(v.trailer.hitchToAxleMm)} mm to its axle, ${formatNumber(v.trailer.lengthMm)} mm to its end`,
                ],
              ] as [string, string][])
            : []),
          ...(v.sensors
            ? ([
                [
                  "Cameras and radars",
                  v.sensors
                    .map(
                      (s) =>
                        `${s.name} ${formatNumber(s.xMm)}, ${formatNumber(s.yMm)}, ${formatNumber(s.zMm)} mm`,
                    )
                    .join("; "),
                ],
              ] as [string, string][])
            : []),
          ["Source", v.source],
          [
            "Checked",
            v.checked
              ? `entered by ${v.checked.enteredBy}, checked by ${v.checked.checkedBy} on ${dayInWords(v.checked.checkedOn)}`
              : "before second-person checks were kept",
          ],
        ]}
      />
      {learned && learned.cars > 0 && (
        <LearnedTable learned={learned} id={v.id} writes={page.writes} propose={propose} />
      )}
    </BookDocument>
  );
}

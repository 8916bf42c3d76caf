"use client";

import { PLACES, SYSTEMS, type PlaceId, type SystemId } from "@/core/owed";
import { CORNER_NAMES, CORNERS, vehicleFieldName, vehicleProblems } from "@/core/vehicle";
import { DraftEditor, type AtPath, type DraftPage } from "../book/draft-editor";
import { ChoiceField, NumberField, SetField, TextField, YesNo } from "../book/fields";
import { AxleList } from "./axle-list";
import { MarkList } from "./mark-list";
import { QuestionList } from "./question-list";
import { SensorList } from "./sensor-list";
import { VEHICLE_SIGNATURES } from "./signatures";

const BODIES: [string, string][] = [
  ["car", "Car"],
  ["coupe", "Coupe"],
  ["van", "Van"],
  ["camper", "Camper"],
  ["truck", "Truck"],
];
const GRID = "grid grid-cols-2 gap-x-6 gap-y-2 border-t-2 border-ink pt-3 lg:grid-cols-4";

const Place = ({ at, path, name }: { at: AtPath; path: string; name: string }) => (
  <>
    <NumberField label={`${name}, ahead`} unit="mm" {...at(`${path}.xMm`)} />
    <NumberField label={`${name}, to the left`} unit="mm" {...at(`${path}.yMm`)} />
    <NumberField label={`${name}, up`} unit="mm" {...at(`${path}.zMm`)} />
    <span className="hidden lg:block" />
  </>
);

type Fitted = { system: SystemId; places: PlaceId[] };

/** Writes a vehicle of the measuring book. */
export function VehicleEditor(page: DraftPage) {
  return (
    <DraftEditor
      {...page}
      home={{ href: "/vehicles", name: "Vehicles" }}
      problemsOf={vehicleProblems}
      nameOf={vehicleFieldName}
      signatures={VEHICLE_SIGNATURES}
    >
      {({ doc, readOnly, at, change }) => {
        const fitted = (Array.isArray(doc.fitted) ? doc.fitted : []) as Fitted[];
        const setPlaces = (system: SystemId, places: PlaceId[]): void => {
          const rest = fitted.filter((f) => f.system !== system);
          change("fitted", places.length > 0 ? [...rest, { system, places }] : rest);
        };
        return (
          <>
            <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
              <TextField label="Make" large {...at("make")} />
              <TextField label="Model" large {...at("model")} />
              <TextField label="Variant" {...at("variant")} />
              <TextField label="VIN begins with" {...at("vinStart")} />
            </div>
            <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
              <ChoiceField label="Body" choices={BODIES} {...at("body")} />
              <ChoiceField
                label="Driver on the vehicle"
                choices={[
                  ["left", "Left"],
                  ["right", "Right"],
                ]}
                {...at("driverSide")}
              />
            </div>
            <div className={GRID}>
              <NumberField label="Wheelbase" unit="mm" {...at("wheelbaseMm")} />
              <NumberField label="Front track" unit="mm" {...at("trackFrontMm")} />
              <NumberField label="Rear track" unit="mm" {...at("trackRearMm")} />
              <NumberField label="Front overhang" unit="mm" {...at("frontOverhangMm")} />
              <NumberField label="Length" unit="mm" {...at("lengthMm")} />
              <NumberField label="Width" unit="mm" {...at("widthMm")} />
              <NumberField label="Hub height" unit="mm" {...at("hubHeightMm")} />
              <NumberField label="Hub caps out" unit="mm" {...at("hubCapOutMm")} />
            </div>
            <p className="-mb-3 border-t-2 border-ink pt-3 text-sm text-soft">
              Places count from the middle of the rear axle on the floor: ahead, to the left, up.
            </p>
            <div className={GRID.replace("border-t-2 border-ink pt-3 ", "")}>
              <Place at={at} path="camera" name="Camera" />
              <Place at={at} path="frontBadge" name="Front badge" />
              <Place at={at} path="rearBadge" name="Rear badge" />
              <NumberField label="Hub places known to ±" unit="mm" {...at("hubSigmaMm")} />
              <NumberField label="Badge places known to ±" unit="mm" {...at("badgeSigmaMm")} />
              <NumberField label="Rear axle: thrust, ±" unit="°" {...at("alignment.thrustDeg")} />
              <NumberField
                label="Rear toe of a wheel, least"
                unit="°"
                {...at("alignment.toeMinDeg")}
              />
              <NumberField
                label="Rear toe of a wheel, most"
                unit="°"
                {...at("alignment.toeMaxDeg")}
              />
            </div>
            <MarkList
              value={doc.centreMarks}
              at={at}
              readOnly={readOnly}
              onChange={(v) => change("centreMarks", v)}
            />
            {(doc.body === "truck" || doc.furtherAxles !== undefined) && (
              <AxleList
                value={doc.furtherAxles}
                at={at}
                readOnly={readOnly}
                onChange={(v) => change("furtherAxles", v)}
              />
            )}
            <SensorList
              value={doc.sensors}
              at={at}
              readOnly={readOnly}
              onChange={(v) => change("sensors", v)}
            />
            {fitted.some((f) => f.system === "trailer-camera") && (
              <section aria-label="Trailer">
                <div className={GRID}>
                  <span className="col-span-full">
                    <TextField label="Trailer, what it is" {...at("trailer.name")} />
                  </span>
                  <NumberField
                    label="Hitch behind the rear hubs"
                    unit="mm"
                    {...at("trailer.hitchBehindMm")}
                  />
                  <NumberField
                    label="Hitch to its axle"
                    unit="mm"
                    {...at("trailer.hitchToAxleMm")}
                  />
                  <NumberField label="Hitch to its end" unit="mm" {...at("trailer.lengthMm")} />
                  <NumberField
                    label="Its camera above the floor"
                    unit="mm"
                    {...at("trailer.cameraHeightMm")}
                  />
                  <NumberField
                    label="Its hubs from the middle"
                    unit="mm"
                    {...at("trailer.hubHalfMm")}
                  />
                  <NumberField
                    label="Its hubs above the floor"
                    unit="mm"
                    {...at("trailer.hubHeightMm")}
                  />
                  <NumberField
                    label="Its hubs known to ±"
                    unit="mm"
                    {...at("trailer.hubSigmaMm")}
                  />
                  <NumberField
                    label="Its hitch known to ±"
                    unit="mm"
                    {...at("trailer.hitchSigmaMm")}
                  />
                </div>
              </section>
            )}
            <div className={GRID}>
              {CORNERS.map((c) => (
                <NumberField
                  key={c}
                  label={`Arch, ${CORNER_NAMES[c]}`}
                  unit="mm"
                  {...at(`archMm.${c}`)}
                />
              ))}
              {(["half", "full"] as const).flatMap((load) =>
                (["front", "rear"] as const).map((axle) => (
                  <NumberField
                    key={load + axle}
                    label={`Placard, ${load} load, ${axle}`}
                    unit="kPa"
                    {...at(`placardKPa.${load}.${axle}`)}
                  />
                )),
              )}
              <TextField label="Tyres, front" {...at("tyres.front")} />
              <TextField label="Tyres, rear" {...at("tyres.rear")} />
              <NumberField label="Tank" unit="l" {...at("tankLitres")} />
              <YesNo label="Gateway locks writing" {...at("gateway")} />
            </div>
            <section aria-label="What is fitted" className="border-t-2 border-ink pt-3">
              <h2 className="mb-1 text-sm font-semibold text-soft">
                What is fitted, and where it sits
              </h2>
              {(Object.keys(SYSTEMS) as SystemId[]).map((system) => (
                <div key={system} className="border-b border-dashed border-hairline py-1">
                  <SetField
                    label={SYSTEMS[system]}
                    path={`fitted.${system}`}
                    problem={null}
                    readOnly={readOnly}
                    value={fitted.find((f) => f.system === system)?.places ?? []}
                    choices={Object.entries(PLACES)}
                    onChange={(v) => setPlaces(system, v as PlaceId[])}
                  />
                </div>
              ))}
            </section>
            <QuestionList
              value={doc.questions}
              fitted={fitted.map((f) => f.system)}
              readOnly={readOnly}
              onChange={(v) => change("questions", v)}
            />
            <div className={GRID}>
              <TextField label="Maker’s glass part" {...at("glass.makerPart")} />
              <TextField
                label="Equivalent parts, with commas"
                {...at("glass.equivalentParts")}
                value={
                  (at("glass.equivalentParts").value as string[] | undefined)?.join(", ") ?? ""
                }
                onChange={(v) =>
                  change(
                    "glass.equivalentParts",
                    typeof v === "string"
                      ? v
                          .split(",")
                          .map((p) => p.trim())
                          .filter(Boolean)
                      : [],
                  )
                }
              />
              <NumberField label="Glass width" unit="mm" {...at("glass.widthMm")} />
              <NumberField label="Glass height" unit="mm" {...at("glass.heightMm")} />
              <NumberField label="Glass rake" unit="°" {...at("glass.rakeDeg")} />
              <NumberField label="Bracket across" unit="mm" {...at("glass.bracketAcrossMm")} />
              <NumberField label="Bracket up" unit="mm" {...at("glass.bracketUpMm")} />
              <NumberField label="Bracket may turn" unit="°" {...at("glass.limitDeg")} />
            </div>
            <TextField label="Source of these figures" {...at("source")} />
          </>
        );
      }}
    </DraftEditor>
  );
}

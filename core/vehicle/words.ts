/** Fields of a vehicle as people call them; a path not named here is said as it is. */
const NAMES: Record<string, string> = {
  make: "the make",
  model: "the model",
  vinStart: "the beginning of the VIN",
  wheelbaseMm: "the wheelbase",
  trackFrontMm: "the front track",
  trackRearMm: "the rear track",
  hubCapOutMm: "how far the hub caps stand out",
  hubHeightMm: "the hub height",
  lengthMm: "the length",
  widthMm: "the width",
  frontOverhangMm: "the front overhang",
  tankLitres: "the tank",
  source: "the source",
  "tyres.front": "the front tyre size",
  "tyres.rear": "the rear tyre size",
  "alignment.thrustDeg": "the limit of thrust",
  "alignment.toeMinDeg": "the least rear toe",
  "alignment.toeMaxDeg": "the greatest rear toe",
  "trailer.name": "the trailer’s name",
  "trailer.hitchBehindMm": "how far the hitch lies behind the rear hubs",
  "trailer.hitchToAxleMm": "the trailer’s hitch to its axle",
  "trailer.cameraHeightMm": "the height of the trailer’s camera",
  "trailer.lengthMm": "the trailer’s hitch to its end",
  "glass.makerPart": "the maker’s glass part",
  "glass.equivalentParts": "the equivalent parts",
};
const GROUPS: [RegExp, string][] = [
  [/^camera\./, "the camera’s place"],
  [/^frontBadge\./, "the front badge’s place"],
  [/^rearBadge\./, "the rear badge’s place"],
  [/^centreMarks/, "the further marks of the front"],
  [/^archMm\./, "an arch height"],
  [/^placardKPa\./, "a placard pressure"],
  [/^glass\./, "the glass"],
  [/^sensors/, "the cameras and radars"],
  [/^trailer/, "the trailer"],
  [/^fitted/, "what is fitted"],
  [/^questions/, "the questions"],
];

export const vehicleFieldName = (path: string): string =>
  NAMES[path] ?? GROUPS.find(([is]) => is.test(path))?.[1] ?? path;

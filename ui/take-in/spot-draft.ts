import { onTheSpotSchema, type OnTheSpot } from "@/core/job";
import type { Board } from "@/core/kit";
import type { SystemId } from "@/core/owed";
import { parseQuantity, radToDeg, degToRad, type UnitId } from "@/core/units";

/** Lengths of the form, in the order they are typed: name, what it says beside the field, bounds. */
export const SPOT_LENGTHS = {
  wheelbase: { label: "Front hub to rear hub", say: "the wheelbase", min: 1500, max: 7000 },
  frontCaps: { label: "Front hub caps apart", say: "the front hub caps", min: 1100, max: 2700 },
  rearCaps: { label: "Rear hub caps apart", say: "the rear hub caps", min: 1100, max: 2700 },
  hubHeight: { label: "Hub above the floor", say: "the hub height", min: 200, max: 700 },
  taped: { label: "Taped to within ±", say: "how well it was taped", min: 0.5, max: 20 },
  along: { label: "Front hub line to board", say: "the distance", min: 300, max: 12000 },
  height: { label: "Board centre above floor", say: "the height", min: 100, max: 3000 },
  tolAlong: { label: "Distance ±", say: "the limit along", min: 0.5, max: 200 },
  tolAcross: { label: "Sideways ±", say: "the limit across", min: 0.5, max: 200 },
  tolHeight: { label: "Height ±", say: "the limit of height", min: 0.5, max: 200 },
} as const;
export type SpotLength = keyof typeof SPOT_LENGTHS;

/** The form exactly as typed. */
export type SpotDraft = Record<SpotLength, string> & {
  make: string;
  model: string;
  body: OnTheSpot["body"];
  driverSide: OnTheSpot["driverSide"];
  systems: SystemId[];
  source: string;
  boardCode: string;
  tolTwist: string;
};
export type SpotField = SpotLength | "make" | "model" | "source" | "boardCode" | "tolTwist";

export const EMPTY_SPOT: SpotDraft = {
  make: "",
  model: "",
  body: "car",
  driverSide: "right",
  systems: [],
  wheelbase: "",
  frontCaps: "",
  rearCaps: "",
  hubHeight: "",
  taped: "4",
  source: "",
  boardCode: "",
  along: "",
  height: "",
  tolAlong: "",
  tolAcross: "",
  tolHeight: "",
  tolTwist: "",
};

const TWIST = {
  name: "the limit of twist",
  dimension: "angle",
  min: degToRad(0.02),
  max: degToRad(10),
} as const;

/** What the form amounts to, and by field what is wrong with it or, first of all, still lacking. */
export type SpotReading = {
  typed: OnTheSpot | null;
  problems: Partial<Record<SpotField, string>>;
  lack: { field: SpotField; say: string } | null;
};

/** Reads the form. @param lengths the unit of a length typed without one */
export function readSpot(d: SpotDraft, boards: readonly Board[], lengths: UnitId): SpotReading {
  const problems: SpotReading["problems"] = {};
  const lacks: { field: SpotField; say: string }[] = [];
  const words = (field: "make" | "model" | "source", say: string): string => {
    if (d[field].trim().length < (field === "source" ? 3 : 1)) lacks.push({ field, say });
    return d[field].trim();
  };
  const length = (field: SpotLength): number => {
    const { say, ...bounds } = SPOT_LENGTHS[field];
    if (d[field].trim() === "") {
      lacks.push({ field, say: `Type ${say}.` });
      return bounds.min;
    }
    const read = parseQuantity(d[field], { name: say, dimension: "length", ...bounds }, lengths);
    if (read.ok) return read.value;
    const problem = read.problem + (read.guess ? ` Meant as ${read.guess.text}?` : "");
    problems[field] = problem;
    lacks.push({ field, say: problem });
    return bounds.min;
  };
  const make = words("make", "Type the make.");
  const model = words("model", "Type the model.");
  const taped = {
    wheelbaseMm: length("wheelbase"),
    frontCapsMm: length("frontCaps"),
    rearCapsMm: length("rearCaps"),
    hubHeightMm: length("hubHeight"),
    tapedSigmaMm: length("taped"),
  };
  const source = words("source", "Say where the board’s figures come from.");
  const board = boards.find((b) => b.code === d.boardCode);
  if (!board) lacks.push({ field: "boardCode", say: "Choose the board the source asks for." });
  const place = { alongMm: length("along"), heightMm: length("height") };
  const tolerance = {
    alongMm: length("tolAlong"),
    acrossMm: length("tolAcross"),
    heightMm: length("tolHeight"),
  };
  const twist = d.tolTwist.trim() === "" ? null : parseQuantity(d.tolTwist, TWIST, "deg");
  if (!twist?.ok) {
    if (twist) problems.tolTwist = twist.problem;
    lacks.push({ field: "tolTwist", say: twist?.problem ?? "Type the limit of twist." });
  }
  if (lacks.length > 0) return { typed: null, problems, lack: lacks[0]! };
  const typed = onTheSpotSchema.parse({
    make,
    model,
    body: d.body,
    driverSide: d.driverSide,
    systems: d.systems,
    ...taped,
    source,
    boardCode: board!.code,
    boardWidthMm: board!.widthMm,
    ...place,
    tolerance: { ...tolerance, twistDeg: radToDeg(twist!.value!) },
  });
  return { typed, problems, lack: null };
}

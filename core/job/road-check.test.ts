import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import { intakeSchema, type TabletEvent } from "./events";
import { itemLacks } from "./item";
import { itemOf } from "./items";
import { dashNow, roadLacks, roadTrials } from "./road-check";
import { dashWords } from "./road-words";

const sheet = SHEETS.find((s) => s.id === "lisse-forward-three")!;
const ground = groundOf(intakeSchema.parse(INTAKE), 0, sheet);
const walk = {
  kind: "walk",
  odometerKm: 10,
  odometerTyped: "10",
  lamps: ["camera", "tyres"],
  settings: { "lane-keeping": "early" },
} satisfies TabletEvent;
type Road = Extract<TabletEvent, { kind: "road-check" }>;
const tried = (functionId: Road["functionId"], more: Partial<Road> = {}): Road => ({
  kind: "road-check",
  functionId,
  result: "works",
  remark: "",
  drove: "Ines Tarbet",
  watched: "Oskar Veld",
  putBack: true,
  ...more,
});

describe("a road check", () => {
  const ids = roadTrials(ground, []).map((t) => t.id);
  it("is of the functions that hang on what was calibrated, and on nothing else", () => {
    expect(ids).toEqual(["lane-keeping", "collision-warning", "signs", "high-beam"]);
  });
  it("is done when each was tried, none fails, and the customer's own settings are put back", () => {
    const lacks = (...bodies: Road[]) =>
      roadLacks(roadTrials(ground, logOf(ground, walk, ...bodies)));
    const all = ids.map((id) => tried(id));
    expect(lacks(...all.slice(1))).toMatch(/^Lane keeping is not tried yet/);
    expect(lacks(...all.slice(2))).toMatch(/^2 functions are not tried/);
    expect(lacks(...all, tried("signs", { result: "fails", remark: "reads none" }))).toMatch(
      /Traffic signs does not work/,
    );
    expect(lacks(...all, tried("lane-keeping", { putBack: false }))).toMatch(
      /Lane keeping: put the customer’s own setting back/,
    );
    expect(lacks(...all, tried("signs", { putBack: false }))).toBeNull();
    expect(lacks(...all, tried("high-beam", { result: "untried", remark: "daylight" }))).toBeNull();
  });
});

describe("the dash after the work", () => {
  const item = itemOf(ground, "prove", "dash")!;
  it("is held against how the vehicle came in; a new lamp keeps it from being fine", () => {
    const lit = (...lamps: ("camera" | "tyres" | "airbag")[]) =>
      logOf(ground, walk, { kind: "lamps-now", lamps });
    expect(itemLacks(ground, logOf(ground, walk), item)).toMatch(/say which lamps are lit/);
    expect(dashWords(dashNow(lit("tyres"))!)).toBe(
      "lit as before: Tyre pressure; out now: Camera blocked",
    );
    expect(itemLacks(ground, lit("tyres"), item)).toBeNull();
    expect(itemLacks(ground, lit("tyres", "airbag"), item)).toMatch(/A lamp is lit since the work/);
  });
});

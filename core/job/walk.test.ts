import { describe, expect, it } from "vitest";
import { readOdometer, functionsOf, tabletEventSchema } from ".";

describe("reading an odometer", () => {
  it.each([
    ["84210", 84210],
    ["84 210 km", 84210],
    ["84,210", 84210],
    ["52330 mi", 84217],
    ["52.330 miles", 84217],
    ["0", 0],
  ])("%s is %i km", (text, km) => expect(readOdometer(text)).toBe(km));
  it.each(["", "about 80000", "84 21", "-5", "84210 kg", "3000001", "1.5"])("%j is none", (text) =>
    expect(readOdometer(text)).toBeNull(),
  );
});

it("only functions of fitted systems are asked for", () => {
  expect(functionsOf([{ system: "mirror-camera" }])).toEqual(["mirror-view"]);
  expect(functionsOf([])).toEqual([]);
});

describe("what a tablet may write of the arrival", () => {
  const walk = {
    kind: "walk",
    odometerKm: 1,
    odometerTyped: "1",
    lamps: ["airbag"],
    settings: { signs: "off" },
  };
  const consent = { kind: "consent", name: "Elin Marsh", words: "I agree", strokes: [[[1, 2]]] };
  const photo = { kind: "photo", photo: "a".repeat(64), subject: "dash", takenAt: null };
  const wrong = (body: object): string | undefined =>
    tabletEventSchema.safeParse(body).error?.issues[0]?.path.join(".");
  it("is taken as it is meant", () => {
    for (const body of [walk, consent, photo]) expect(tabletEventSchema.parse(body)).toEqual(body);
  });
  it.each([
    ["odometerKm", { ...walk, odometerKm: -1 }],
    ["lamps.0", { ...walk, lamps: ["disco"] }],
    ["settings.jet", { ...walk, settings: { jet: "on" } }],
    ["strokes", { ...consent, strokes: [] }],
    ["name", { ...consent, name: " " }],
    ["photo", { ...photo, photo: "../../etc/passwd" }],
    ["subject", { ...photo, subject: "cat" }],
  ])("is refused by the name of the field: %s", (field, body) => {
    expect([field, field.split(".")[0]]).toContain(wrong(body));
  });
});

import { describe, expect, it } from "vitest";
import { readCaught, slotsFor } from "@/core/setout";
import { planOf } from "@/tests/fixtures";

const slots = slotsFor(planOf(1, 1));
const tape = slots.find((s) => s.id === "tape-fl-l")!;
const laser = slots.find((s) => s.id === "laser-badge")!;
const lean = slots.find((s) => s.id === "tilt-pitch")!;

describe("the reading catcher", () => {
  it.each([
    ["2871", 2871],
    ["2 871 mm", 2871],
    ["113 1/32 in", 2870.99],
    ["9' 5\"", 2870.2],
  ])("reads a tape typed as %s", (text, mm) => {
    const caught = readCaught(text, tape, 0, "mm");
    expect(caught.kind).toBe("value");
    expect(caught.kind === "value" && caught.shown).toBeCloseTo(mm, 2);
  });
  it("reads bare figures as inches when the tablet is set so", () => {
    expect(readCaught("113 1/32", tape, 0, "in")).toMatchObject({
      kind: "value",
      shown: expect.closeTo(2870.99, 2) as number,
    });
  });
  it("asks for the side of a sided reading, and takes it typed or pressed", () => {
    expect(readCaught("12", laser, 0, "mm")).toMatchObject({
      kind: "problem",
      message: expect.stringMatching(/vehicle left or vehicle right/) as string,
    });
    expect(readCaught("12 L", laser, 0, "mm")).toEqual({ kind: "value", shown: 12 });
    expect(readCaught("12r", laser, 0, "mm")).toEqual({ kind: "value", shown: -12 });
    expect(readCaught("12", laser, -1, "mm")).toEqual({ kind: "value", shown: -12 });
    expect(readCaught("-12", laser, 0, "mm")).toEqual({ kind: "value", shown: -12 });
    expect(readCaught("0", laser, 0, "mm")).toEqual({ kind: "value", shown: 0 });
    // A board that belongs far to vehicle right: only there is such a figure possible.
    const { target } = planOf(1, 1);
    const aside = slotsFor({
      ...planOf(1, 1),
      target: { ...target, placement: { ...target.placement, acrossMm: -1180 } },
    }).find((s) => s.id === "laser-badge")!;
    expect(readCaught("1191", aside, -1, "mm")).toEqual({ kind: "value", shown: -1191 });
    expect(readCaught("1191", aside, 0, "mm")).toMatchObject({
      message: expect.stringMatching(/Say which side/) as string,
    });
    expect(readCaught("1191 L", aside, 0, "mm")).toMatchObject({
      kind: "problem",
      message: expect.stringMatching(/cannot be/) as string,
    });
    expect(readCaught("1.191", aside, -1, "mm")).toMatchObject({
      guess: { value: -1191, text: "1.191 metres" },
    });
  });
  it("offers the likely meaning of an impossible value, and none where there is none", () => {
    expect(readCaught("2.871", tape, 0, "mm")).toMatchObject({
      kind: "problem",
      guess: { value: 2871, text: "2.871 metres" },
    });
    expect(readCaught("0.001", tape, 0, "mm")).not.toHaveProperty("guess");
    expect(readCaught("about three", tape, 0, "mm")).toMatchObject({
      kind: "problem",
      message: expect.stringMatching(/is not a measurement/) as string,
    });
  });
  it("reads a lean in degrees and refuses a length there", () => {
    expect(readCaught("0.5", lean, 1, "mm")).toMatchObject({
      shown: expect.closeTo(Math.PI / 360, 9) as number,
    });
    expect(readCaught("5 mm", lean, 1, "mm")).toMatchObject({
      kind: "problem",
      message: expect.stringMatching(/is an angle, not millimetres/) as string,
    });
  });
  it("is empty when nothing is typed", () => {
    expect(readCaught("  ", tape, 0, "mm")).toEqual({ kind: "empty" });
  });
});

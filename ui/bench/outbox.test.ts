import { describe, expect, it } from "vitest";
import type { EventBody, JobEvent, TabletEvent } from "@/core/job";
import { goTogether } from "./outbox";

const at = "2026-11-03T09:00:00.000Z";
const event = (body: EventBody, who = "ines"): JobEvent => ({ id: "e", seq: 2, at, by: { id: who, name: who, initials: "XX" }, body }); // prettier-ignore
const reading: TabletEvent = { kind: "reading", slotId: "tape-fl-l", typed: "2900", shown: 2900, sigma: 1.7, instrumentId: "T-3" }; // prettier-ignore
const touch: TabletEvent = { kind: "touch", touch: "cranked" };
const tool: EventBody = { kind: "run", event: { at, type: "routine-started", step: "learn" } };

describe("what one person writes in two places at once", () => {
  it.each([
    ["a reading beside a reading on their phone", [reading], [event(reading)], true],
    ["a touch beside a reading on their phone: which came first matters", [touch], [event(reading)], false],
    ["anything beside the answers of the tool they asked", [touch], [event(tool)], true],
    ["a reading beside a reading and the tool", [reading], [event(tool), event(reading)], true],
    ["a reading beside a touch on their phone", [reading], [event(touch)], false],
    ["a reading beside a colleague's reading", [reading], [event(reading, "oskar")], false],
    ["a check beside a tool a colleague works", [touch], [event(tool, "oskar")], false],
  ] as [string, TabletEvent[], JobEvent[], boolean][])("%s", (_, mine, theirs, together) => {
    expect(goTogether(mine.map((send) => ({ send })), theirs, "ines")).toBe(together); // prettier-ignore
  });
});

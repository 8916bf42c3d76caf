import type { RunEvent, Told } from "@/core/run";
import type { ScanEvent } from "@/core/scan";
import type { Sheet } from "@/core/sheet";
import { formatNumber, formatQuantity } from "@/core/units";

/** One run event as a line of the log. */
export function runEventWords(event: RunEvent, sheet: Sheet): { label: string; value: string } {
  const say =
    "step" in event ? (sheet.run.find((s) => s.id === event.step)?.say ?? event.step) : "";
  switch (event.type) {
    case "connected":
      return {
        label: `${event.how === "by-hand" ? "By hand on" : "Connected:"} ${event.tool.name} ${event.tool.serial}, software ${event.tool.software}`,
        value: [
          event.volts === null ? null : `${formatNumber(event.volts, 1)} V`,
          event.changed ? `changed since: ${event.changed}` : null,
        ]
          .filter(Boolean)
          .join("; "),
      };
    case "connect-failed":
      return { label: "Connection refused", value: event.reason };
    case "placed":
      return { label: say, value: "set out and proved there" };
    case "confirmed":
      return { label: say, value: "done" };
    case "ignition":
      return { label: "Ignition", value: event.to };
    case "waited":
      return { label: "Waited", value: "as the sheet asks" };
    case "clock-started":
      return { label: say, value: "the vehicle’s clock runs" };
    case "clock-missed":
      return { label: say, value: "not placed in the vehicle’s time" };
    case "held":
      return { label: say, value: event.entered ? "entered" : "the vehicle did not take it" };
    case "hold-missed":
      return { label: say, value: "not held in time" };
    case "chosen":
      return { label: say, value: optionName(sheet, event.step, event.option) };
    case "value-accepted":
      return { label: say, value: `let pass: ${event.reason}` };
    case "dropped":
      return { label: "Scan tool lost the vehicle", value: event.reason };
    case "reconnected":
      return {
        label: `Connected again: ${event.tool.name} ${event.tool.serial}`,
        value:
          event.session === "kept" ? "the vehicle went on" : "the vehicle has left its routine",
      };
    case "value":
      return {
        label: say,
        value: isLength(event.shownUnit)
          ? `${formatQuantity(event.value, "mm")} (tool shows ${formatNumber(event.shownValue, 1)} ${event.shownUnit})`
          : `${formatNumber(event.shownValue, 2)}${event.shownUnit === "deg" ? "°" : ` ${event.shownUnit}`}${event.how ? " (typed from the tool)" : ""}`,
      };
    case "input":
      return { label: say, value: formatQuantity(event.valueMm, "mm") };
    case "aim-read":
      return { label: say, value: shownWords(event) };
    case "aim-turned":
      return { label: "Camera turned", value: stepsWords(event) };
    case "routine-started":
      return { label: "Routine started", value: "" };
    case "routine-result":
      return {
        label: event.result.passed ? "Vehicle: learned" : "Vehicle: refused",
        value: `${
          event.result.passed
            ? `quality ${formatNumber(event.result.qualityPercent)} %`
            : (event.result.reason ?? "no reason given")
        }${event.how ? ` (${toldWords(event.how)})` : ""}`,
      };
    case "stopped":
      return { label: "Run stopped", value: event.reason };
  }
}

/** Which way a result came in that no tool told by itself. */
export const toldWords = (how: Told): string =>
  how.kind === "typed"
    ? "typed from the tool"
    : how.kind === "photo"
      ? "typed beside a photo of the tool"
      : `from the tool’s report ${how.name}, ${how.sha256.slice(0, 8)}`;

/** A length in a unit that is not the sheet's. */
const isLength = (unit: string): boolean => unit === "in" || unit === "cm";

/** What an option of a step is called. */
function optionName(sheet: Pick<Sheet, "run">, stepId: string, option: string): string {
  const step = sheet.run.find((s) => s.id === stepId);
  const found = step?.kind === "choose" ? step.options.find((o) => o.id === option) : undefined;
  return found?.name ?? option;
}

/** Where a mark stands on a display, in divisions. */
export const shownWords = ({ right, up }: { right: number; up: number }): string =>
  `mark at ${formatNumber(Math.abs(right), 2)} ${right >= 0 ? "right" : "left"}, ${formatNumber(Math.abs(up), 2)} ${up >= 0 ? "up" : "down"}`;

/** Commands of the tool, in words: "5 steps outward, 2 down". */
export function stepsWords({ pan, tilt }: { pan: number; tilt: number }): string {
  const one = (n: number, more: string, less: string): string[] =>
    n === 0 ? [] : [`${Math.abs(n)} ${n > 0 ? more : less}`];
  const all = [...one(pan, "outward", "inward"), ...one(tilt, "up", "down")];
  return all.length > 0 ? all.join(", ") : "no step";
}

/** One scan event as a line of the slip; null for a mere look at the supply. */
export function scanEventWords(
  event: ScanEvent,
): { label: string; value: string; bad: boolean } | null {
  switch (event.type) {
    case "read": {
      const silent = event.modules.filter((m) => !m.answers).map((m) => m.name);
      const codes = event.modules.flatMap((m) => m.codes.map((c) => c.code));
      const value = codes.length === 0 ? "no codes" : codes.join(", ");
      return {
        label: `Scan, ${event.modules.length} control units${event.vin ? ` of VIN …${event.vin.slice(-6)}` : ""}`,
        value: silent.length > 0 ? `${value}; no answer: ${silent.join(", ")}` : value,
        bad: silent.length > 0,
      };
    }
    case "cleared":
      return { label: "Codes", value: "cleared", bad: false };
    case "refused":
      return {
        label: event.what === "clear" ? "Clearing refused" : "Reading refused",
        value: event.reason,
        bad: true,
      };
    case "gateway":
      return {
        label: "Gateway",
        value: event.state === "signed-in" ? "signed in" : (event.reason ?? event.state),
        bad: event.state !== "signed-in",
      };
    case "self-test":
      return {
        label: event.told ? "Self-test, on the shop’s own tool" : "Self-test",
        value: event.says,
        bad: !event.passed,
      };
    case "volts":
      return null;
  }
}

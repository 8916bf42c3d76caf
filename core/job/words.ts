import type { RunEvent } from "@/core/run";
import type { Sheet } from "@/core/sheet";
import { formatNumber, formatQuantity } from "@/core/units";

/** One run event as a line of the log. */
export function runEventWords(event: RunEvent, sheet: Sheet): { label: string; value: string } {
  const say = "step" in event ? (sheet.run.find((s) => s.id === event.step)?.say ?? event.step) : "";
  switch (event.type) {
    case "connected":
      return {
        label: `Connected: ${event.tool.name} ${event.tool.serial}, software ${event.tool.software}`,
        value: `${formatNumber(event.volts, 1)} V`,
      };
    case "connect-failed":
      return { label: "Connection refused", value: event.reason };
    case "confirmed":
      return { label: say, value: "done" };
    case "ignition":
      return { label: "Ignition", value: event.to };
    case "waited":
      return { label: "Waited", value: "as the sheet asks" };
    case "value":
      return {
        label: say,
        value:
          event.shownUnit === "in"
            ? `${formatQuantity(event.value, "mm")} (tool shows ${formatNumber(event.shownValue, 1)} in)`
            : `${formatNumber(event.shownValue, 2)} ${event.shownUnit}`,
      };
    case "input":
      return { label: say, value: formatQuantity(event.valueMm, "mm") };
    case "routine-started":
      return { label: "Routine started", value: "" };
    case "routine-result":
      return {
        label: event.result.passed ? "Vehicle: learned" : "Vehicle: refused",
        value: event.result.passed
          ? `quality ${formatNumber(event.result.qualityPercent)} %`
          : (event.result.reason ?? "no reason given"),
      };
    case "stopped":
      return { label: "Run stopped", value: event.reason };
  }
}

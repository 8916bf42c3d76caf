import { useState } from "react";
import type { JobEvent } from "@/core/job";
import { useJob } from "../bench/job-store";

export type RunCommand =
  | { type: "connect" }
  | { type: "confirm"; step: string }
  | { type: "ignition"; step: string; to: "on" | "off" }
  | { type: "waited"; step: string }
  | { type: "read"; step: string }
  | { type: "input"; step: string; valueMm: number }
  | { type: "start"; step: string }
  | { type: "stop"; reason: string };

/** Sends one command to the scan tool and takes in what the log gained. Answers whether it was carried out. */
export function useRunCommand(): {
  busy: RunCommand["type"] | null;
  command: (c: RunCommand, quiet?: boolean) => Promise<boolean>;
} {
  const { head, absorb, confirmedHead, say } = useJob();
  const [busy, setBusy] = useState<RunCommand["type"] | null>(null);
  const command = async (c: RunCommand, quiet = false): Promise<boolean> => {
    setBusy(c.type);
    try {
      const response = await fetch(`/api/jobs/${head.id}/run`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ after: confirmedHead, command: c }),
      });
      const body = (await response.json().catch(() => ({}))) as { events?: JobEvent[]; error?: string };
      if (body.events) absorb(body.events);
      else if (!quiet) say(body.error ?? "The scan tool does not answer. Try again.");
      return body.events !== undefined;
    } catch {
      if (!quiet) say("No connection to the shop. Nothing was sent to the vehicle; try again when the shop answers.");
      return false;
    } finally {
      setBusy(null);
    }
  };
  return { busy, command };
}

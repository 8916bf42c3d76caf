import { useState } from "react";
import type { JobEvent } from "@/core/job";
import { useJob } from "./job-store";

/**
 * Sends a command to one of the job's devices ("run", "scan") and takes in what the log gained.
 * Answers whether it was carried out; while something unsent waits on the tablet, nothing is
 * commanded, so that the log stays in order.
 */
export function useCommand<C extends string | { type: string }>(device: "run" | "scan") {
  const { head, absorb, confirmedHead, say, pending } = useJob();
  const [busy, setBusy] = useState<string | null>(null);
  const command = async (c: C, quiet = false): Promise<boolean> => {
    setBusy(typeof c === "string" ? c : c.type);
    try {
      const response = await fetch(`/api/jobs/${head.id}/${device}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ after: confirmedHead, command: c }),
      });
      const body = (await response.json().catch(() => ({}))) as {
        events?: JobEvent[];
        error?: string;
      };
      if (body.events) absorb(body.events);
      else if (!quiet) say(body.error ?? "The scan tool does not answer. Try again.");
      return body.events !== undefined;
    } catch {
      if (!quiet)
        say(
          "No connection to the shop. Nothing was sent to the vehicle; try again when the shop answers.",
        );
      return false;
    } finally {
      setBusy(null);
    }
  };
  return { busy: busy ?? (pending.length > 0 ? "sending" : null), command };
}

"use client";

import { wrap, type Remote } from "comlink";
import { ScanLine } from "lucide-react";
import { useId, useState } from "react";
import type { Codes } from "@/workers/codes/codes.worker";

let reader: Remote<Codes> | null = null;
/** The reader works beside the page; it is started when the first picture comes. */
const codes = (): Remote<Codes> =>
  (reader ??= wrap<Codes>(
    new Worker(new URL("../../workers/codes/codes.worker.ts", import.meta.url), { type: "module" }),
  ));

/**
 * Reads the codes in a photo, on the tablet itself.
 *
 * @param onCodes takes the texts found; answers with what is wrong with them, or null
 */
export function CodePhoto({
  label,
  onCodes,
}: {
  label: string;
  onCodes: (texts: string[]) => string | null;
}) {
  const [state, setState] = useState<{ busy: boolean; problem: string | null }>({
    busy: false,
    problem: null,
  });
  const id = useId();
  const read = async (file: File): Promise<void> => {
    setState({ busy: true, problem: null });
    try {
      const found = await codes().read(file);
      const problem =
        found.length === 0
          ? "No code found in the picture. Go closer, hold level, keep lamps off it."
          : onCodes(found.map((f) => f.text));
      setState({ busy: false, problem });
    } catch {
      setState({ busy: false, problem: "This picture cannot be opened. Take it as JPEG or PNG." });
    }
  };
  return (
    <div className="flex flex-wrap items-center gap-x-3">
      <label
        htmlFor={id}
        className="inline-flex min-h-12 cursor-pointer items-center gap-2 rounded-md px-2 text-base font-semibold text-act hover:bg-wash focus-within:outline focus-within:outline-2 focus-within:outline-act"
      >
        <ScanLine size={22} aria-hidden />
        {state.busy ? "Reading the picture" : label}
        <input
          id={id}
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          onChange={(e) => {
            const [file] = e.target.files ?? [];
            if (file) void read(file);
            e.target.value = "";
          }}
        />
      </label>
      {state.problem && (
        <span role="alert" className="text-base text-stop">
          {state.problem}
        </span>
      )}
    </div>
  );
}

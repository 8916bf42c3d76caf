"use client";

import { isOver, toolEnds, toolEndWords, type ShopTool } from "@/core/kit";
import type { Vehicle } from "@/core/vehicle";

/** What of the shop's scan tools has ended, or soon does, as far as it matters to this vehicle. */
export function ToolEnds({
  tools,
  today,
  vehicle,
}: {
  tools: readonly ShopTool[];
  today: string;
  vehicle: Pick<Vehicle, "gateway">;
}) {
  const found = tools.flatMap((tool) => {
    const ends = toolEnds(tool, today, vehicle.gateway);
    return ends.length > 0 ? [{ tool, ends }] : [];
  });
  if (found.length === 0) return null;
  return (
    <section aria-label="Scan tools" className="flex flex-col gap-1">
      {found.map(({ tool, ends }) => (
        <p
          key={tool.id}
          className={`border-l-4 bg-sheet px-3 py-2 text-base ${ends.some(isOver) ? "border-stop" : "border-loose"}`}
        >
          <b className="figure font-semibold">{tool.id}</b> {tool.name}:{" "}
          {ends.map((e) => toolEndWords(tool, e)).join("; ")}.
        </p>
      ))}
    </section>
  );
}

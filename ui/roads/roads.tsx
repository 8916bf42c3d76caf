"use client";

import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Junction, Road, RoadPlace } from "@/core/drive/road";
import { formatNumber } from "@/core/units";
import { FileButton } from "../primitives/file-button";

const RoadMap = dynamic(() => import("./road-map").then((m) => m.RoadMap), {
  ssr: false,
  loading: () => <div className="h-[60vh] border border-hairline" />,
});

type Known = { shop: RoadPlace; roads: Road[]; junctions: Junction[] };
type Said = { ok: boolean; words: string };

const SILENT = "The shop does not answer. The file was not taken; try again when it is back.";

/** The roads a shop drives on: a map, and the file they go out and come in by. */
export function RoadsPage({ known, lead }: { known: Known | null; lead: boolean }) {
  const router = useRouter();
  const [said, setSaid] = useState<Said | null>(null);
  const take = async (text: string): Promise<void> => {
    const answer = await fetch("/api/roads/file", {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: text,
    }).catch(() => null);
    if (!answer) return setSaid({ ok: false, words: SILENT });
    const { roads, error } = (await answer.json()) as { roads?: number; error?: string };
    setSaid(
      answer.ok
        ? { ok: true, words: `${roads} roads taken. Drives are planned on them from now on.` }
        : { ok: false, words: error ?? SILENT },
    );
    if (answer.ok) router.refresh();
  };
  const seen = known?.roads.filter(
    (r) => r.along.left.kind !== "none" && r.along.right.kind !== "none",
  );
  return (
    <main className="mx-auto w-full max-w-[1200px] px-4 pb-8 lg:px-6">
      <header className="flex flex-wrap items-center gap-x-6 gap-y-2 py-3">
        <h1 className="text-4xl font-semibold">Roads</h1>
        <p className="flex-1 text-lg text-soft">
          {known
            ? `${known.roads.length} roads, ${known.junctions.length} junctions; lines on both sides of ${formatNumber((100 * seen!.length) / known.roads.length, 0)} % of them.`
            : "Drives are planned on the shop’s own roads."}
        </p>
        {known && (
          <a
            href="/api/roads/file"
            download
            className="inline-flex min-h-12 items-center px-3 text-base font-semibold"
          >
            Export
          </a>
        )}
        {lead && (
          <FileButton
            noun="roads"
            accept=".geojson,.json,application/geo+json"
            onText={(text) => void take(text)}
          />
        )}
      </header>
      {said && (
        <p
          role={said.ok ? "status" : "alert"}
          className={`mb-3 whitespace-pre-line border-l-4 pl-3 text-lg ${said.ok ? "border-settled" : "border-stop text-stop"}`}
        >
          {said.words}
        </p>
      )}
      {known ? (
        <RoadMap roads={known.roads} shop={known.shop} />
      ) : (
        <p className="py-16 text-center text-xl text-soft">
          No roads yet: no drive can be proposed.{" "}
          {lead ? "Import a GeoJSON file of them." : "The lead imports a file of them."}
        </p>
      )}
      <p className="mt-2 text-base text-soft">
        Thick: lines on both sides. Dashed: often not seen. Thin: none. A road’s name shows when it
        is touched.
      </p>
    </main>
  );
}

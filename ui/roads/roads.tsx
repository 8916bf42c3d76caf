"use client";

import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Junction, Road, RoadPlace } from "@/core/drive/road";
import { formatNumber } from "@/core/units";
import { Field } from "../primitives/field";
import { FileButton } from "../primitives/file-button";
import { SaidLine, type Said } from "../primitives/said-line";
import { useTimes } from "../settings";
import { RoadEditor } from "./road-editor";

const RoadMap = dynamic(() => import("./road-map").then((m) => m.RoadMap), {
  ssr: false,
  loading: () => <div className="h-[60vh] border border-hairline" />,
});

type Known = { shop: RoadPlace; roads: Road[]; junctions: Junction[] };

const SILENT = "The shop does not answer. The file was not taken; try again when it is back.";

/** The roads a shop drives on: a map, and the file they go out and come in by. */
export function RoadsPage({
  known,
  lead,
  writes,
}: {
  known: Known | null;
  lead: boolean;
  writes: boolean;
}) {
  const router = useRouter();
  const { day } = useTimes();
  const [said, setSaid] = useState<Said | null>(null);
  const [at, setAt] = useState<string | null>(null);
  const [sought, setSought] = useState("");
  const road = known?.roads.find((r) => r.id === at) ?? null;
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
      <SaidLine said={said} />
      {known ? (
        <div className="grid gap-4 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
          <div>
            <RoadMap roads={known.roads} shop={known.shop} chosen={road} onChoose={setAt} />
            <p className="mt-2 text-base text-soft">
              Thick: lines on both sides. Dashed: often not seen. Thin: none. Touch a road to see
              what is known of it.
            </p>
          </div>
          {road ? (
            <RoadEditor
              key={road.id}
              known={road}
              junctions={known.junctions}
              today={day(new Date().toISOString())}
              readOnly={!writes}
              onClose={() => setAt(null)}
              onKept={(name) => {
                setAt(null);
                setSaid({ ok: true, words: `${name} is kept. Drives are planned with it.` });
                router.refresh();
              }}
            />
          ) : (
            <RoadList roads={known.roads} sought={sought} onSeek={setSought} onChoose={setAt} />
          )}
        </div>
      ) : (
        <p className="py-16 text-center text-xl text-soft">
          No roads yet: no drive can be proposed.{" "}
          {lead ? "Import a GeoJSON file of them." : "The lead imports a file of them."}
        </p>
      )}
    </main>
  );
}

/** So many are listed; who seeks finds the others. */
const LISTED = 12;

/** Roads by name: those nobody has looked at for longest come first. */
function RoadList({
  roads,
  sought,
  onSeek,
  onChoose,
}: {
  roads: readonly Road[];
  sought: string;
  onSeek: (words: string) => void;
  onChoose: (id: string) => void;
}) {
  const words = sought.trim().toLowerCase();
  const looked = ({ along }: Road): string =>
    [along.left.on, along.right.on].map((on) => on ?? "").sort()[0]!;
  const found = roads
    .filter((r) => r.name.toLowerCase().includes(words))
    .toSorted(
      (a, b) =>
        looked(a).localeCompare(looked(b)) || a.name.localeCompare(b.name, "en", { numeric: true }),
    );
  return (
    <section aria-label="Roads by name" className="bg-sheet px-5 py-4">
      <Field
        label="Find a road"
        value={sought}
        onChange={(e) => onSeek(e.target.value)}
        hint={`${found.length} of ${roads.length}, the longest not looked at first`}
      />
      <ul>
        {found.slice(0, LISTED).map((r) => (
          <li key={r.id} className="border-b border-dashed border-hairline last:border-0">
            <button
              type="button"
              onClick={() => onChoose(r.id)}
              className="flex min-h-14 w-full items-center justify-between gap-4 text-left text-lg hover:bg-wash"
            >
              <span>{r.name}</span>
              <span className="text-base text-soft">{looked(r) || "never looked at"}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

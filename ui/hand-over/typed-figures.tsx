"use client";

import { typedFigures } from "@/core/job";
import { formatNumber, formatQuantity } from "@/core/units";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Facts } from "../primitives/paper";
import { useTimes } from "../settings";

/** What stands in no book: the figures as they were typed, for a second person to compare. */
export function TypedFigures({ handed }: { handed: boolean }) {
  const { dateAndTime } = useTimes();
  const { ground, events, me, write } = useJob();
  const { onTheSpot: t } = ground.intake;
  const figures = typedFigures(ground, events);
  if (!t || !figures) return null;
  const { typed, compared } = figures;
  const own = typed.by.id === me.id;
  const mm = (v: number): string => formatQuantity(v, "mm");
  const within = (v: number): string => `± ${formatNumber(v, v % 1 === 0 ? 0 : 1)} mm`;
  return (
    <section aria-label="Figures typed on the spot" className="mb-6 border-l-4 border-loose pl-4">
      <h2 className="mb-1 text-xl font-semibold">Figures typed on the spot</h2>
      <p className="text-lg leading-snug">
        No book of the shop has this vehicle and its sheet: {typed.by.name} typed them,{" "}
        {dateAndTime(typed.at)}.{" "}
        {compared
          ? `${compared.by.name} compared them with the source, figure by figure, ${dateAndTime(compared.at)}.`
          : "No second person has compared them; the report says so until one does."}
      </p>
      <div className="mt-2 grid items-start gap-x-10 xl:grid-cols-2">
        <Facts
          facts={[
            ["Front hub to rear hub", mm(t.wheelbaseMm)],
            [
              "Hub caps apart",
              `front ${formatNumber(t.frontCapsMm)}, rear ${formatQuantity(t.rearCapsMm, "mm")}`,
            ],
            ["Hub above the floor", mm(t.hubHeightMm)],
            ["Taped to within", within(t.tapedSigmaMm)],
          ]}
        />
        <Facts
          facts={[
            ["Source", t.source],
            ["Board", t.boardCode],
            ["Front hub line to board", `${mm(t.alongMm)} ${within(t.tolerance.alongMm)}`],
            ["Centre above floor", `${mm(t.heightMm)} ${within(t.tolerance.heightMm)}`],
            [
              "Sideways, twist",
              `${within(t.tolerance.acrossMm)}, ± ${formatNumber(t.tolerance.twistDeg, 2)}°`,
            ],
          ]}
        />
      </div>
      {!compared &&
        !handed &&
        (own || me.role === "viewer" ? (
          <p className="mt-2 text-base text-soft">
            {own
              ? "A colleague signs in, opens this page and compares them with the source."
              : "A technician or the lead may compare them here."}
          </p>
        ) : (
          <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
            <Button look="act" size="large" onClick={() => write({ kind: "second-look" })}>
              I compared them: each agrees
            </Button>
            <p className="max-w-[34ch] text-base text-soft">
              Read the board’s off the source, tape one of the car’s. Where one differs, take the
              job in anew.
            </p>
          </div>
        ))}
    </section>
  );
}

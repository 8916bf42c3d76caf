"use client";

import { useQuery } from "@tanstack/react-query";
import { soonerOf, untilDone, wayInBay, type Tried, type Way } from "@/core/job/sooner";
import { formatNumber } from "@/core/units";
import { useJob } from "../bench/job-store";
import { ButtonLink } from "../primitives/button";
import { Mark } from "../primitives/marks";
import { Paper } from "../primitives/paper";
import { shopQueries } from "../shop-queries";
import type { Plans } from "./use-plans";

/** What the road offers: the hour in which a drive is done first. */
function wayOnRoad(plans: Plans): Way | { lacks: string } | null {
  if (plans.kind === "looking") return null;
  if (plans.kind !== "found") return { lacks: "No drive can be planned." };
  const [now] = plans.hours;
  const ways = plans.hours.flatMap(({ departMs, plans: [best] }) =>
    best
      ? [
          {
            waitMin: (departMs - now!.departMs) / 60_000,
            minutes: best.seconds / 60,
            chance: best.chance,
          },
        ]
      : [],
  );
  if (ways.length === 0) return plans.whole ? { lacks: "No drive in the coming day." } : null;
  return ways.reduce((a, b) => (untilDone(b) < untilDone(a) ? b : a));
}

/** In the bay or on the road: which is likelier to be done sooner today, with minutes and chance. */
export function BayOrRoad({ plans }: { plans: Plans }) {
  const { ground, events, head } = useJob();
  const { id } = ground.sheet;
  const { data: tried } = useQuery(
    {
      queryKey: ["tried", id],
      queryFn: async (): Promise<Tried> => {
        const answer = await fetch(`/api/sheets/${encodeURIComponent(id)}/tried`);
        if (!answer.ok) throw new Error("no answer");
        return (await answer.json()) as Tried;
      },
    },
    shopQueries(),
  );
  const bay = wayInBay(ground, events, tried ?? { ran: 0, first: 0 });
  const road = wayOnRoad(plans);
  const sooner = road && soonerOf(bay, road);
  const said = !road
    ? "Looking for the soonest drive."
    : !sooner
      ? "Neither goes today."
      : `${sooner.is === "bay" ? "In the bay" : "On the road"} it is likelier to be done sooner${
          sooner.byMin !== null && sooner.byMin >= 1
            ? `, by about ${formatNumber(sooner.byMin, 0)} min`
            : ""
        }.`;
  return (
    <Paper title="In the bay or on the road">
      <p className="text-2xl font-semibold" role="status">
        {said}
      </p>
      <div className="mt-2 grid gap-4 md:grid-cols-2">
        <Offer
          name="In the bay"
          way={bay}
          best={sooner?.is === "bay"}
          note={
            tried && tried.ran > 0
              ? `${formatNumber(tried.first, 0)} of ${formatNumber(tried.ran, 0)} passed at the first attempt here.`
              : "Nobody here has tried it: four of five is taken."
          }
        >
          <ButtonLink href={`/jobs/${head.id}/set-out`}>4 Set out</ButtonLink>
        </Offer>
        {road && (
          <Offer
            name="On the road"
            way={road}
            best={sooner?.is === "road"}
            note="By roads, hour, weather and sun, as planned below."
          />
        )}
      </div>
    </Paper>
  );
}

function Offer({
  name,
  way,
  best,
  note,
  children,
}: {
  name: string;
  way: Way | { lacks: string };
  best: boolean;
  note: string;
  children?: React.ReactNode;
}) {
  return (
    <section
      aria-label={name}
      className={`border-l-8 px-4 py-2 ${best ? "border-settled" : "border-hairline"}`}
    >
      <p className="flex items-center gap-2 text-lg font-semibold">
        <Mark state={best ? "settled" : "open"} size={16} />
        {name}
      </p>
      {"lacks" in way ? (
        <p className="text-lg text-loose">{way.lacks}</p>
      ) : (
        <>
          <p className="figure text-3xl font-semibold">
            {formatNumber(way.minutes, 0)} min
            {way.waitMin >= 1 && (
              <span className="text-lg"> in {formatNumber(way.waitMin, 0)} min</span>
            )}
          </p>
          <p className="text-base text-soft">
            {formatNumber(100 * way.chance, 0)} of 100 are done then. {note}
          </p>
        </>
      )}
      {children}
    </section>
  );
}

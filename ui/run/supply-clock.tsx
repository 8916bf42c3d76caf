"use client";

import { useMemo } from "react";
import { unmaintained, type Unmaintained } from "@/core/job/supply";
import { formatNumber } from "@/core/units";
import { useJob } from "../bench/job-store";
import { ButtonLink } from "../primitives/button";
import { secondsLeft, useLeft } from "./left";

/** So near its end somebody has to go to the bonnet. */
const LATE_MS = 3 * 60_000;

/** What is left of the supply since the maintainer was taken off, on whatever stage somebody is. */
export function SupplyClock() {
  const { ground, events } = useJob();
  const supply = useMemo(() => unmaintained(ground, events), [ground, events]);
  return supply && <Running key={supply.until} supply={supply} />;
}

const nothing = (): Promise<boolean> => Promise.resolve(true);

function Running({ supply }: { supply: Unmaintained }) {
  const { head } = useJob();
  const left = useLeft(supply.until, nothing);
  const late = left < LATE_MS;
  const minutes = formatNumber(supply.minutes);
  return (
    <section
      aria-label="Supply"
      className={`flex items-center gap-4 border-t-4 bg-sheet px-4 py-1 ${late ? "border-stop" : "border-hairline"}`}
    >
      <p className="flex-1 text-lg">
        {left > 0
          ? supply.from === "sheet"
            ? `The maintainer is off: the sheet counts on ${minutes} min of supply.`
            : `The maintainer is off: the supply falls, and lasts ${minutes} min by its fall.`
          : "Put the maintainer on again: the supply may be too low for the routine."}
      </p>
      <p
        role="timer"
        aria-label="Supply left"
        className={`figure text-3xl font-semibold leading-none ${late ? "text-stop" : ""}`}
      >
        {secondsLeft(left)}
      </p>
      <ButtonLink href={`/jobs/${head.id}/ready`} look="quiet">
        3 Ready
      </ButtonLink>
    </section>
  );
}

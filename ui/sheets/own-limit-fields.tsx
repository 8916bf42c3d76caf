"use client";

import type { Draft } from "@/core/book";
import { USUAL_EFFECT } from "@/core/sheet";
import type { AtPath } from "../book/draft-editor";
import { NumberField } from "../book/fields";
import { getAt } from "../book/paths";

/** The first board's limits say for all whether they are the shop's own. */
const FIRST = "setups.0.targets.0.ownLimit";

/** Whether a draft's limits are the shop's own, from what the road may be off. */
export const hasOwnLimits = (doc: Draft): boolean => getAt(doc, FIRST) !== undefined;

/** Where a source names no tolerance: how far the road may be off, from which the limits follow. */
export function OwnLimitFields({ doc, all }: { doc: Draft; all: AtPath }) {
  const own = hasOwnLimits(doc);
  const field = all("ownLimit");
  const known = getAt(doc, `${FIRST}.seen`) !== undefined;
  return (
    <section aria-label="The shop's own limits">
      <label className="flex min-h-12 items-center gap-3 text-lg">
        <input
          type="checkbox"
          className="h-6 w-6 shrink-0 accent-act"
          checked={own}
          disabled={field.readOnly}
          onChange={(e) => field.onChange(e.target.checked ? { ...USUAL_EFFECT } : undefined)}
        />
        The source names no tolerance: the shop sets its own, from the road
      </label>
      {own && (
        <div className="grid grid-cols-2 gap-x-6 gap-y-2 lg:grid-cols-4">
          <NumberField
            label="Lane 60 m ahead, off by at most"
            unit="mm"
            {...all("ownLimit.laneMm")}
          />
          <NumberField
            label="A distance of 60 m, wrong by at most"
            unit="mm"
            {...all("ownLimit.rangeMm")}
          />
          <p className="col-span-2 self-center text-base text-soft">
            {known
              ? "A board anywhere inside the four limits above does no more than this, by where this vehicle’s camera sits. They follow when the board, or the vehicle, is another."
              : "The limits follow as soon as the board’s place, height and width are written and a vehicle is chosen below."}
          </p>
        </div>
      )}
    </section>
  );
}

"use client";

import type { Bay } from "@/core/space/bay";
import type { Vec } from "@/core/space/convex";
import { moved, placesOf, type Hold } from "@/core/space/draw";
import { ChoiceField, NumberField, TextField, YesNo } from "../book/fields";

type P = [number, number];
type Say = (where: string, bay: Bay) => void;

/** The numbers of what is held: where it is, how large, how high, where it shines to. */
export function HoldFields({
  bay,
  hold,
  readOnly,
  onChange,
}: {
  bay: Bay;
  hold: Hold;
  readOnly: boolean;
  onChange: Say;
}) {
  const field = { path: "", problem: null, readOnly };
  const [first] = placesOf(bay, hold) as [Vec];
  const where = `${hold.kind}/${hold.i}`;
  /** From the lowest corner: a thing is moved whole. */
  const place = (k: 0 | 1, label: string) => {
    const now = Math.min(...placesOf(bay, hold).map((p) => p[k]));
    return (
      <NumberField
        label={label}
        unit="mm"
        {...field}
        value={now}
        onChange={(v) => {
          if (typeof v !== "number") return;
          const by = v - now;
          onChange(`${where}/${k}`, moved(bay, hold, k === 0 ? by : 0, k === 1 ? by : 0));
        }}
      />
    );
  };
  if (hold.kind === "corner" || hold.kind === "spot")
    return (
      <div className="grid grid-cols-2 gap-x-5">
        {place(0, "Along wall 1, x")}
        {place(1, "Away from it, y")}
      </div>
    );
  if (hold.kind === "thing") {
    const thing = bay.obstacles[hold.i]!;
    const put = (name: string, patch: Partial<typeof thing>): void =>
      onChange(`${where}/${name}`, {
        ...bay,
        obstacles: bay.obstacles.map((o, i) => (i === hold.i ? { ...o, ...patch } : o)),
      });
    const size = (k: 0 | 1): number => {
      const all = thing.outline.map((p) => p[k]);
      return Math.max(...all) - Math.min(...all);
    };
    const stretch = (k: 0 | 1, to: unknown): void => {
      if (typeof to !== "number" || to < 10) return;
      const low = Math.min(...thing.outline.map((p) => p[k]));
      const by = to / size(k);
      const go = (p: P): P => {
        const at = Math.round(low + (p[k] - low) * by);
        return k === 0 ? [at, p[1]] : [p[0], at];
      };
      put(`size${k}`, { outline: thing.outline.map(go) });
    };
    return (
      <div className="flex flex-col gap-2">
        <TextField
          label="What stands there"
          {...field}
          value={thing.name}
          onChange={(v) => put("name", { name: (v as string | undefined) ?? "" })}
        />
        <div className="grid grid-cols-2 gap-x-5 gap-y-2">
          {place(0, "Begins along, x")}
          {place(1, "Begins away, y")}
          {([0, 1] as const).map((k) => (
            <NumberField
              key={k}
              label={k === 0 ? "Length along x" : "Depth along y"}
              unit="mm"
              {...field}
              value={size(k)}
              onChange={(v) => stretch(k, v)}
            />
          ))}
          <NumberField
            label="From this height"
            unit="mm"
            {...field}
            value={thing.fromMm}
            onChange={(v) => typeof v === "number" && put("from", { fromMm: v })}
          />
          <NumberField
            label="Up to this height"
            unit="mm"
            {...field}
            value={thing.toMm}
            onChange={(v) => typeof v === "number" && put("to", { toMm: v })}
          />
        </div>
      </div>
    );
  }
  const [from, to] = placesOf(bay, { kind: hold.kind, i: hold.i }) as [Vec, Vec];
  const length = Math.round(Math.hypot(to[0] - from[0], to[1] - from[1]));
  const long = (mm: unknown): void => {
    if (typeof mm !== "number" || mm < 10) return;
    const [ux, uy] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
    onChange(
      `${where}/long`,
      moved(bay, { ...hold, end: 1 }, ux * (mm - length), uy * (mm - length)),
    );
  };
  return (
    <div className="flex flex-col gap-2">
      {hold.kind !== "door" && (
        <TextField
          label="Its name"
          {...field}
          value={(hold.kind === "light" ? bay.lights : bay.likenesses)[hold.i]!.name}
          onChange={(v) => {
            const name = (v as string | undefined) ?? "";
            const named = <T extends { name: string }>(list: T[]): T[] =>
              list.map((l, i) => (i === hold.i ? { ...l, name } : l));
            onChange(
              `${where}/name`,
              hold.kind === "light"
                ? { ...bay, lights: named(bay.lights) }
                : { ...bay, likenesses: named(bay.likenesses) },
            );
          }}
        />
      )}
      <div className="grid grid-cols-2 gap-x-5">
        <NumberField label="Width" unit="mm" {...field} value={length} onChange={long} />
        <p className="self-end pb-2 text-base text-soft">
          from {first[0]}, {first[1]} mm
        </p>
      </div>
      {hold.kind === "light" && (
        <LightFields bay={bay} i={hold.i} readOnly={readOnly} onChange={onChange} />
      )}
    </div>
  );
}

/** What kind of light it is, where it shines to, and whether it can be put off. */
function LightFields({
  bay,
  i,
  readOnly,
  onChange,
}: {
  bay: Bay;
  i: number;
  readOnly: boolean;
  onChange: Say;
}) {
  const field = { path: "", problem: null, readOnly };
  const light = bay.lights[i]!;
  const put = (patch: Partial<typeof light>): void =>
    onChange(`light/${i}/${Object.keys(patch).join()}`, {
      ...bay,
      lights: bay.lights.map((l, k) => (k === i ? { ...l, ...patch } : l)),
    });
  return (
    <>
      <ChoiceField
        label="It is"
        choices={[
          ["window", "A window"],
          ["lamp", "A lamp"],
        ]}
        {...field}
        value={light.kind}
        onChange={(v) => put({ kind: v as "window" | "lamp" })}
      />
      <div className="grid grid-cols-2 gap-x-5">
        <NumberField
          label="Shines toward, from x to the left"
          unit="°"
          {...field}
          value={light.towardDeg ?? undefined}
          onChange={(v) => put({ towardDeg: typeof v === "number" ? v : null })}
        />
        <NumberField
          label="As wide as, either way"
          unit="°"
          {...field}
          value={light.spreadDeg ?? undefined}
          onChange={(v) => put({ spreadDeg: typeof v === "number" ? v : null })}
        />
      </div>
      <YesNo
        label="Can be put off or covered"
        {...field}
        value={light.covers}
        onChange={(v) => put({ covers: v === true })}
      />
    </>
  );
}

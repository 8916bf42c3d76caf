"use client";

import { useRouter } from "next/navigation";
import { useEffect, useMemo, useRef, useState, useTransition, type ComponentProps } from "react";
import type { Board, ShopTool } from "@/core/kit";
import { thingOf, type Stand } from "@/core/setout";
import type { RuleBook } from "@/core/owed";
import { targetsOf, wantsThrust, type Sheet } from "@/core/sheet";
import { vinFromCode, type Vehicle } from "@/core/vehicle";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { useSettings } from "../settings";
import { Field } from "../primitives/field";
import { MomentField } from "../primitives/moment-field";
import { CodePhoto } from "../scanning/code-photo";
import { useWedge } from "../scanning/use-wedge";
import { Happenings } from "./happenings";
import { OnTheSpotForm } from "./on-the-spot";
import { HereBefore, type PastActions } from "./here-before";
import { EMPTY_SPOT } from "./spot-draft";
import { SheetChoices } from "./sheet-choices";
import { OwedPreview } from "./owed-preview";
import { ProposeTime } from "./propose-time";
import type { Booked } from "@/core/schedule/booking";
import { Questions } from "./questions";
import { readIntake, standForSheet, useIntakeDraft, wantsStand, type FieldId } from "./use-intake";
import { ToolVin } from "./tool-vin";
import { VehicleTile } from "./vehicle-tile";
import { ToolEnds } from "./tool-ends";
import { VinField } from "./vin-field";

/** What is about to be opened, in one line. */
function opening(sheets: readonly Sheet[], standOf: (s: Sheet) => string): string {
  const parts = sheets.map((s) => {
    const [first] = targetsOf(s);
    if (!first) return `${s.title}, on the road`;
    return wantsStand(s)
      ? `${s.title}, ${thingOf(first).thing} ${first.object.code}, stand ${standOf(s)}`
      : first.kind === "mark"
        ? `${s.title}, drawn on the floor`
        : `${s.title}, ${targetsOf(s).length > 1 ? "mats" : "mat"} ${targetsOf(s)
            .map((t) => t.object.code)
            .join(" and ")}`;
  });
  return `${parts.join("; ")}.`;
}

/** Opens a job: which vehicle, what was done, for whom. The next lack is always named below. */
export function TakeIn({
  vehicles,
  usual,
  sheets,
  stands: all,
  boards,
  tools,
  today,
  failed,
  book,
  me,
  past,
  open,
  vinFromTool,
  booked,
}: {
  vehicles: Vehicle[];
  /** Ids of the vehicles that came of late, the most frequent first. */
  usual: string[];
  sheets: Sheet[];
  stands: Stand[];
  boards: Board[];
  tools: ShopTool[];
  /** The shop's calendar day. */
  today: string;
  /** Stands whose zero check failed, with what it found. */
  failed: Record<string, string>;
  book: RuleBook;
  /** The booking it comes by; null where it comes by none. */
  booked: Booked | null;
  /** The name of who takes it in. */
  me: string;
  past: PastActions;
  open: (input: unknown) => Promise<{ id: string; message?: undefined } | { message: string }>;
  vinFromTool: ComponentProps<typeof ToolVin>["ask"];
}) {
  const { lengths, clock } = useSettings();
  const [draft, change, clear, awake] = useIntakeDraft();
  const [refusal, setRefusal] = useState<string | null>(null);
  const [asking, setAsking] = useState<string | null>(null);
  const [unfolded, setUnfolded] = useState(false);
  const [busy, start] = useTransition();
  const router = useRouter();
  const vin = useRef<HTMLInputElement>(null);
  const stands = useMemo(() => all.filter((s) => !(s.id in failed)), [all, failed]);
  const r = useMemo(
    () =>
      readIntake(draft, { vehicles, sheets, stands, boards, book, me, lengths, zone: clock.zone }),
    [draft, vehicles, sheets, stands, boards, book, me, lengths, clock.zone],
  );
  // Once the VIN has picked the vehicle, the others only take room.
  const folded = r.byVin && !unfolded;
  // A whole VIN of no kind the shop knows: that the vehicle is in no book is likelier than not.
  const unknown = r.vin.ok && r.vehicle === null;
  const onTheSpot = (
    <button
      type="button"
      onClick={() => change({ spot: EMPTY_SPOT })}
      className="min-h-14 rounded-md border-2 border-dashed border-hairline px-3 text-left text-base font-semibold hover:border-ink"
    >
      In no book: type it on the spot
    </button>
  );
  const few = useMemo(() => likely(vehicles, usual, draft.vin), [vehicles, usual, draft.vin]);
  const offered = folded ? [r.vehicle!] : unfolded ? vehicles : withChosen(few, r.vehicle);
  const longest = Math.max(...vehicles.map((v) => v.lengthMm));

  useEffect(() => {
    if (awake && window.matchMedia("(pointer: fine)").matches) vin.current?.focus();
  }, [awake]);

  // A scanner types wherever the cursor stands: its characters are taken out of that field again.
  const before = useRef(draft);
  const takeCode = (texts: string[], restore: Partial<typeof draft> = {}): string | null => {
    const starts = vehicles.map((v) => v.vinStart);
    const read = texts.flatMap((t) => vinFromCode(t, starts) ?? []);
    const found = read.find((v) => v.sure) ?? read[0];
    if (!found)
      return `The code says "${texts[0]}", which holds no valid VIN. Scan the VIN’s own label, or type it.`;
    setAsking(found.sure ? null : found.vin);
    change({ ...restore, ...(found.sure && { vin: found.vin, vehicleId: null }) });
    return null;
  };
  useWedge(
    () => (before.current = draft),
    (code) => {
      const problem = takeCode([code], before.current);
      const inField = document.activeElement?.matches("input, textarea");
      setRefusal(inField ? null : problem);
      return problem === null || !inField;
    },
  );

  const go = (field: FieldId | null): void => {
    const target = document.getElementById(field === "vin" ? "vin" : `take-in-${field}`);
    target?.scrollIntoView({ block: "center" });
    (target?.matches("input")
      ? target
      : target?.querySelector<HTMLElement>("input, button")
    )?.focus();
  };
  const submit = (): void => {
    if (!r.intake || busy) return;
    const intake = r.intake;
    start(async () => {
      setRefusal(null);
      try {
        const answer = await open(intake);
        if (answer.message !== undefined) return setRefusal(answer.message);
        clear();
        router.push(`/jobs/${answer.id}/take-in`);
      } catch {
        setRefusal(
          "The shop does not answer. What is typed here is kept; press again when the shop is back.",
        );
      }
    });
  };
  return (
    <form
      className="flex min-h-0 flex-1 flex-col"
      onSubmit={(e) => {
        e.preventDefault();
        if (r.intake) submit();
        else go(r.lack?.field ?? null);
      }}
    >
      <main className="mx-auto grid w-full max-w-[1240px] flex-1 content-start gap-x-10 gap-y-4 px-3 py-4 lg:grid-cols-[1fr_320px] lg:px-6">
        <h1 className="sr-only">Take in</h1>
        {booked && draft.booked?.id !== booked.id && (
          <p className="flex flex-wrap items-center gap-3 bg-sheet px-4 py-2 text-lg lg:col-span-2">
            {booked.customer} is booked: {booked.done}.
            <Button
              onClick={() => {
                const { id, said, customer, plate, vehicleId, happenings, promised } = booked;
                change({ booked: { id, said }, customer, plate, vehicleId, happenings, promised });
              }}
            >
              Fill in what is booked
            </Button>
          </p>
        )}
        <fieldset disabled={!awake} className="contents">
          <div className="flex min-w-0 flex-col gap-4">
            <VinField
              input={vin}
              value={draft.vin}
              check={r.vin}
              reason={draft.vinReason}
              onChange={(v) => change({ vin: v, vehicleId: null })}
              onReason={(vinReason) => change({ vinReason })}
            />
            <div className="-mt-2 flex flex-wrap items-center gap-x-2 gap-y-1">
              {asking && (
                <p
                  role="alert"
                  className="w-full border-l-4 border-loose bg-sheet px-3 py-1.5 text-base"
                >
                  The code holds <b className="figure font-semibold">{asking}</b>. No check digit
                  says that it is a VIN; compare it with the label.{" "}
                  <button
                    type="button"
                    className="min-h-12 px-2 font-semibold text-act underline"
                    onClick={() => {
                      change({ vin: asking, vehicleId: null });
                      setAsking(null);
                    }}
                  >
                    It is the VIN
                  </button>
                  <button
                    type="button"
                    className="min-h-12 px-2 font-semibold text-act underline"
                    onClick={() => setAsking(null)}
                  >
                    It is not
                  </button>
                </p>
              )}
              <CodePhoto label="Read it from a photo" onCodes={(texts) => takeCode(texts)} />
              <ToolVin
                ask={vinFromTool}
                typed={r.vin.ok ? r.vin.vin : null}
                onVin={(found) => takeCode([found])}
              />
              <HereBefore
                past={past}
                vin={r.vin.vin}
                onChoose={(p) =>
                  change({
                    vin: p.vin,
                    vehicleId: p.vehicleId,
                    plate: p.plate,
                    customer: p.customer,
                    answers: p.answers,
                  })
                }
              />
            </div>
            {draft.spot ? (
              <OnTheSpotForm
                draft={draft.spot}
                reading={r.spot!}
                boards={boards}
                onChange={(patch) => change({ spot: { ...draft.spot!, ...patch } })}
                onLeave={() => change({ spot: null })}
              />
            ) : (
              <fieldset id="take-in-vehicle">
                <legend className="mb-2 text-sm font-semibold text-soft">
                  Vehicle{r.vehicle && (r.byVin ? ": the VIN says so" : ": chosen by hand")}
                </legend>
                <div className="grid grid-cols-2 gap-2 sm:grid-cols-3 lg:grid-cols-5">
                  {unknown && onTheSpot}
                  {offered.map((v) => (
                    <VehicleTile
                      key={v.id}
                      vehicle={v}
                      longestMm={longest}
                      chosen={r.vehicle?.id === v.id}
                      flat={folded}
                      onChoose={() => {
                        change({ vehicleId: v.id });
                        setUnfolded(false);
                      }}
                    />
                  ))}
                  {!folded && !unknown && onTheSpot}
                  {offered.length < vehicles.length && (
                    <button
                      type="button"
                      onClick={() => setUnfolded(true)}
                      className="min-h-14 rounded-md px-3 text-left text-base font-semibold text-act underline decoration-dotted underline-offset-4 hover:bg-wash"
                    >
                      {folded ? "Another vehicle" : `All ${vehicles.length} vehicles`}
                    </button>
                  )}
                </div>
              </fieldset>
            )}
            {r.vehicle && <ToolEnds tools={tools} today={today} vehicle={r.vehicle} />}
            <Happenings
              value={draft.happenings}
              onChange={(happenings) => change({ happenings })}
            />
            <Questions
              questions={r.questions}
              answers={draft.answers}
              onAnswer={(q, c) => change({ answers: { ...draft.answers, [q]: c } })}
            />
          </div>
          <div className="flex flex-col">
            <div id="take-in-customer">
              <Field
                label="Customer"
                value={draft.customer}
                maxLength={120}
                onChange={(e) => change({ customer: e.target.value })}
              />
            </div>
            <div className="grid grid-cols-2 gap-4">
              <Field
                label="Plate"
                value={draft.plate}
                maxLength={20}
                onChange={(e) => change({ plate: e.target.value.toUpperCase() })}
              />
              <Field
                label="Repair order"
                value={draft.order}
                maxLength={40}
                onChange={(e) => change({ order: e.target.value })}
              />
            </div>
            <div className="flex flex-wrap items-end gap-x-3">
              <MomentField
                label="Promised for"
                value={draft.promised}
                onChange={(promised) => change({ promised })}
              />
              <ProposeTime
                day={today}
                vehicleId={r.vehicle?.id ?? null}
                happenings={draft.happenings}
                customer={draft.customer}
                onOffer={(time) => change({ promised: `${today}T${time}` })}
              />
            </div>
            <Field
              label="What the customer complains of"
              value={draft.complaint}
              maxLength={400}
              onChange={(e) => change({ complaint: e.target.value })}
            />
            {r.sheets.some(wantsThrust) && (
              <div id="take-in-toe" className="grid grid-cols-2 gap-4">
                <Field
                  label="Rear toe, vehicle left"
                  value={draft.toeLeft}
                  inputMode="decimal"
                  hint="degrees, toe-in +"
                  problem={r.toe.problem}
                  onChange={(e) => change({ toeLeft: e.target.value })}
                />
                <Field
                  label="Rear toe, vehicle right"
                  value={draft.toeRight}
                  inputMode="decimal"
                  hint="degrees, toe-in +"
                  onChange={(e) => change({ toeRight: e.target.value })}
                />
              </div>
            )}
            <fieldset>
              <legend className="mb-1 text-sm font-semibold text-soft">Stand</legend>
              <div className="flex flex-col gap-1">
                {stands.map((s) => (
                  <label
                    key={s.id}
                    className={`flex min-h-12 cursor-pointer items-center gap-3 rounded-md border-2 bg-sheet px-3 ${r.stand?.id === s.id ? "border-act" : "border-hairline"}`}
                  >
                    <input
                      type="radio"
                      name="stand"
                      className="h-5 w-5 accent-act"
                      checked={r.stand?.id === s.id}
                      onChange={() => change({ standId: s.id })}
                    />
                    <span className="text-base">
                      <b className="figure font-semibold">{s.id}</b>{" "}
                      {s.name.replace(/^[^,]*, /, "")}
                    </span>
                  </label>
                ))}
                {Object.entries(failed).map(([id, found]) => (
                  <p key={id} className="border-l-4 border-stop bg-sheet px-3 py-2 text-base">
                    <b className="figure font-semibold">{id}</b> failed its zero check: {found}. Not
                    for use.
                  </p>
                ))}
              </div>
            </fieldset>
            {r.vehicle && draft.happenings.length > 0 && (
              <OwedPreview vehicle={r.vehicle} draft={draft} book={book} sheets={r.sheets} />
            )}
            {r.choices
              .filter((c) => c.instead.length > 0)
              .map((c) => (
                <SheetChoices
                  key={c.sheet.id}
                  choice={c}
                  taken={draft.instead[c.sheet.id] ?? c.sheet.id}
                  onTake={(id) => change({ instead: { ...draft.instead, [c.sheet.id]: id } })}
                />
              ))}
          </div>
        </fieldset>
      </main>
      <div className="sticky bottom-0">
        {refusal && (
          <p role="alert" className="border-t-4 border-stop bg-sheet px-4 py-2 text-lg text-stop">
            {refusal}
          </p>
        )}
        <NextBar
          tone={r.intake ? "settled" : r.lack?.field === null ? "stop" : "act"}
          say={
            r.intake ? `Open the job for the ${r.vehicle!.make} ${r.vehicle!.model}.` : r.lack!.say
          }
          detail={
            r.intake
              ? opening(r.sheets, (s) => standForSheet(s, stands, r.stand)?.id ?? "")
              : "What is typed here is kept on this tablet until the job is open."
          }
        >
          {draft.vin && (
            <Button look="quiet" size="large" onClick={clear}>
              Start over
            </Button>
          )}
          {(r.intake || r.lack?.field) && (
            <Button type="submit" look="act" size="large" disabled={busy} className="min-w-44">
              {r.intake ? (busy ? "Opening" : "Open the job") : "Go there"}
            </Button>
          )}
        </NextBar>
      </div>
    </form>
  );
}

/** With the two that lead on, a full row of tiles on a tablet. */
const TILES = 3;

/**
 * The vehicles offered before all are asked for: those the typed beginning of the VIN may mean, or
 * what comes most often.
 */
function likely(vehicles: Vehicle[], usual: string[], vin: string): Vehicle[] {
  if (vehicles.length <= TILES + 2) return vehicles;
  const may = vehicles.filter((v) => v.vinStart.startsWith(vin) || vin.startsWith(v.vinStart));
  const place = (v: Vehicle): number => (usual.includes(v.id) ? usual.indexOf(v.id) : usual.length);
  return may.toSorted((a, b) => place(a) - place(b)).slice(0, TILES);
}

const withChosen = (few: Vehicle[], chosen: Vehicle | null): Vehicle[] =>
  !chosen || few.some((v) => v.id === chosen.id) ? few : [chosen, ...few];

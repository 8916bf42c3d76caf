import Link from "next/link";
import { formatNumber, timesIn } from "@/core/units";
import { Button } from "../primitives/button";

type Row = {
  jobId: string;
  calibrationId: string;
  number: number;
  vin: string;
  customer: string;
  plate: string;
  at: string;
  system: string;
  sheet: string;
  stand: string;
  boards: readonly string[];
  instruments: readonly string[];
  people: readonly string[];
  passed: boolean;
  attempts: number;
};
type Asked = Partial<
  Record<
    "find" | "sheet" | "stand" | "board" | "instrument" | "person" | "from" | "to" | "sinceCheck",
    string | undefined
  >
>;

const field = "min-h-12 min-w-0 rounded-md border border-hairline bg-sheet px-2 text-base";

/** What was handed over: a form whose address can be kept, a list, and the same as a table to take along. */
export function Records({
  asked,
  used,
  rows,
  total,
  checkedAt,
  zone,
}: {
  asked: Asked;
  used: Record<"sheets" | "stands" | "boards" | "instruments" | "people", string[]>;
  rows: readonly Row[];
  total: number;
  checkedAt: string | null;
  zone: string;
}) {
  const times = timesIn(zone);
  const given = Object.entries(asked).filter((e): e is [string, string] => Boolean(e[1]));
  const address = new URLSearchParams(given).toString();
  const kit = asked.instrument ?? asked.stand;
  const pick = (name: keyof Asked, label: string, options: readonly string[]) => (
    <label className="flex flex-col gap-1 text-sm text-soft">
      {label}
      <select name={name} defaultValue={asked[name] ?? ""} className={`${field} text-ink`}>
        <option value="">any</option>
        {options.map((o) => (
          <option key={o} value={o}>
            {o}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <main className="mx-auto flex w-full max-w-[1240px] flex-1 flex-col px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <h1 className="text-4xl font-semibold">Records</h1>
        <p className="text-lg text-soft">
          <b className="figure font-semibold text-ink">{formatNumber(total)}</b>{" "}
          {total === 1 ? "calibration" : "calibrations"} handed over
          {given.length > 0 ? ", by what is asked" : ""}
        </p>
        <Link href="/numbers" className="ml-auto min-h-12 content-center text-lg underline">
          The shop’s numbers
        </Link>
      </div>
      <form
        key={address}
        method="get"
        aria-label="Find records"
        className="mt-3 grid grid-cols-2 gap-x-3 gap-y-2 border-b border-hairline pb-4 md:grid-cols-4"
      >
        <label className="col-span-2 flex flex-col gap-1 text-sm text-soft">
          Words
          <input
            name="find"
            defaultValue={asked.find ?? ""}
            placeholder="VIN, plate, order, customer, vehicle"
            className={`${field} text-ink`}
          />
        </label>
        <label className="flex flex-col gap-1 text-sm text-soft">
          From
          <input
            type="date"
            name="from"
            defaultValue={asked.from ?? ""}
            className={`${field} text-ink`}
          />
        </label>
        <label className="flex flex-col gap-1 text-sm text-soft">
          To
          <input
            type="date"
            name="to"
            defaultValue={asked.to ?? ""}
            className={`${field} text-ink`}
          />
        </label>
        {pick("instrument", "Instrument", used.instruments)}
        {pick("board", "Board or mat", used.boards)}
        {pick("stand", "Stand", used.stands)}
        {pick("sheet", "Sheet", used.sheets)}
        {pick("person", "Person", used.people)}
        <label className="flex min-h-12 items-center gap-2 self-end text-base">
          <input
            type="checkbox"
            name="sinceCheck"
            value="1"
            defaultChecked={asked.sinceCheck === "1"}
            className="size-6"
          />
          Only since its last good check
        </label>
        <div className="col-span-2 flex items-end justify-end gap-2">
          {given.length > 0 && (
            <Link href="/records" className="min-h-14 content-center px-3 text-base underline">
              All
            </Link>
          )}
          <a
            href={`/api/records?${address}`}
            className="min-h-14 content-center rounded-md border-2 border-ink px-4 text-lg font-semibold hover:bg-wash"
          >
            CSV
          </a>
          <Button type="submit" look="act" className="min-h-14 px-6 text-lg">
            Find
          </Button>
        </div>
      </form>
      {kit && (
        <p className="border-b border-hairline py-2 text-base text-soft" role="note">
          {checkedAt
            ? `${kit} was last checked and found in order ${times.dateAndTime(checkedAt)}.`
            : `${kit} has no good check on record.`}
        </p>
      )}
      {rows.length === 0 ? (
        <p className="py-10 text-center text-xl text-soft">
          {given.length > 0
            ? "Nothing was handed over that fits all of this. Leave one of it out."
            : "Nothing was handed over yet. What is handed over stands here for years."}
        </p>
      ) : (
        <ul className="flex flex-col">
          {rows.map((r) => (
            <li
              key={`${r.jobId}/${r.calibrationId}`}
              className="border-b border-dashed border-hairline"
            >
              <Link
                href={`/jobs/${r.jobId}/hand-over`}
                className="grid gap-x-4 gap-y-0.5 px-2 py-2.5 hover:bg-wash md:grid-cols-[5rem_9rem_1fr_1fr_6rem]"
              >
                <span className="figure text-lg font-semibold">{r.number}</span>
                <span className="text-base">{times.dateAndTime(r.at)}</span>
                <span className="min-w-0 text-base">
                  <b className="block truncate font-semibold">{r.customer}</b>
                  <span className="figure block truncate text-soft">
                    {r.plate ? `${r.plate} · ` : ""}
                    {r.vin}
                  </span>
                </span>
                <span className="min-w-0 text-base">
                  <span className="block truncate">{r.system}</span>
                  <span className="block truncate text-soft">
                    {[r.sheet, r.stand, ...r.boards, ...r.instruments].join(" · ")}
                  </span>
                </span>
                <span className={`text-base ${r.passed ? "text-settled" : "text-loose"}`}>
                  {r.passed ? "learned" : "not learned"}
                  {r.attempts > 1 && <span className="block text-soft">{r.attempts} attempts</span>}
                </span>
              </Link>
            </li>
          ))}
          {total > rows.length && (
            <li className="py-3 text-base text-soft">
              The last {rows.length} are shown; the CSV has all.
            </li>
          )}
        </ul>
      )}
    </main>
  );
}

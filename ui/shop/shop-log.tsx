import type { LogState } from "../hand-over/hand-over";
import { useTimes } from "../settings";

/** One line of the shop's own log, as the server gives it. */
export type ShopLine = {
  seq: number;
  at: string;
  by: string;
  event: ShopEvent;
  personal: string | null;
};
type ShopEvent =
  | { kind: "rules"; version: number; rules: number }
  | { kind: "policy"; name: "glass" | "clock" | "letterhead"; value: string }
  | { kind: "person"; personId: string; what: string; role: string }
  | { kind: "pin"; personId: string; by: "lead" | "own" }
  | { kind: "kit"; item: string; what: string }
  | { kind: "book"; book: "sheet" | "vehicle"; id: string; version: number }
  | { kind: "feed"; instrumentId: string; what: string }
  | { kind: "erased"; jobId: string; reason: string }
  | { kind: "restored"; from: string };

const words = (e: ShopEvent, names: Record<string, string>, personal: string | null): string => {
  const who = (id: string): string => personal ?? names[id] ?? "somebody";
  switch (e.kind) {
    case "rules":
      return `Rule book, version ${e.version}: ${e.rules} rules`;
    case "policy":
      if (e.name === "letterhead") return `Letterhead: ${e.value}`;
      if (e.name === "clock") return `Clock: the time of ${e.value}`;
      return `Glass: ${e.value === "maker-only" ? "the maker’s only" : "an equivalent part with a reason"}`;
    case "person":
      return `${who(e.personId)} ${e.what}, ${e.role}`;
    case "pin":
      return e.by === "own" ? "Own PIN changed" : `New PIN for ${who(e.personId)}`;
    case "kit":
      return `${e.item}: ${e.what}`;
    case "book":
      return `${e.book === "sheet" ? "Sheet" : "Vehicle"} ${e.id}, version ${e.version}, checked`;
    case "feed":
      return `${e.instrumentId}: ${e.what}`;
    case "erased":
      return `A customer’s data erased: ${e.reason}`;
    case "restored":
      return `Shop restored from a copy: ${e.from}`;
  }
};

/**
 * What was changed of rules, people, PINs, kit and books, newest first, and whether the log is
 * whole.
 */
export function ShopLog({
  lines,
  chain,
  names,
}: {
  lines: ShopLine[];
  chain: LogState;
  names: Record<string, string>;
}) {
  const { dateAndTime } = useTimes();
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1 px-3 py-4 lg:px-6">
      <h1 className="text-4xl font-semibold">Shop log</h1>
      <p className={`text-base ${chain.ok ? "text-soft" : "font-semibold text-stop"}`}>
        {chain.ok
          ? `${chain.lines} ${chain.lines === 1 ? "line" : "lines"}, unbroken.`
          : `Broken at line ${chain.seq}: ${chain.problem}`}
        {lines.length < chain.lines && ` The newest ${lines.length} are shown.`}
      </p>
      {lines.length === 0 && (
        <p className="py-12 text-center text-xl text-soft">
          Nothing was changed yet. Changes of rules, people, PINs, kit, sheets and vehicles stand
          here.
        </p>
      )}
      <ol className={lines.length > 0 ? "mt-4 border-t-2 border-ink" : ""}>
        {lines.map((l) => (
          <li
            key={l.seq}
            className="grid grid-cols-[auto_1fr] gap-x-4 border-b border-hairline px-2 py-2 sm:grid-cols-[56px_1fr_auto_auto]"
          >
            <span className="figure text-soft">{l.seq}</span>
            <span className="text-lg [overflow-wrap:anywhere]">
              {words(l.event, names, l.personal)}
            </span>
            <span className="col-start-2 text-base text-soft sm:col-start-auto">{l.by}</span>
            <span className="figure col-start-2 text-base text-soft sm:col-start-auto">
              {dateAndTime(l.at)}
            </span>
          </li>
        ))}
      </ol>
    </main>
  );
}

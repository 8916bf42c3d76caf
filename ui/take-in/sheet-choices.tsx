import { differences } from "@/core/book";
import type { SheetChoice } from "@/core/job";
import { SYSTEMS } from "@/core/owed";
import { fieldName, type Sheet } from "@/core/sheet";
import { dayInWords } from "@/core/units";

/** What differs without telling one sheet from another. */
const OWN = /^(id|version|title|status|reason|source)(\.|$)/;
/** Differences named at once; more are told by their number. */
const MOST = 4;

const differ = (from: Sheet, to: Sheet) => differences(from, to).filter((d) => !OWN.test(d.path));

/** Several sheets of one system: which is taken, and in what the others differ from the first. */
export function SheetChoices({
  choice: { sheet, instead },
  taken,
  onTake,
}: {
  choice: SheetChoice;
  taken: string;
  onTake: (id: string) => void;
}) {
  return (
    <fieldset className="mt-4">
      <legend className="mb-1 text-sm font-semibold text-soft">
        {SYSTEMS[sheet.appliesTo.system]}: the shop has {1 + instead.length} sheets
      </legend>
      <div className="flex flex-col gap-1">
        {[sheet, ...instead].map((s) => {
          const all = s === sheet ? [] : differ(sheet, s);
          return (
            <label
              key={s.id}
              className={`flex min-h-12 cursor-pointer gap-3 rounded-md border-2 bg-sheet px-3 py-2 ${taken === s.id ? "border-act" : "border-hairline"}`}
            >
              <input
                type="radio"
                name={`sheet-${sheet.id}`}
                className="mt-1 h-5 w-5 shrink-0 accent-act"
                checked={taken === s.id}
                onChange={() => onTake(s.id)}
              />
              <span className="min-w-0 text-base">
                <b className="font-semibold">{s.title}</b>{" "}
                <span className="text-soft">
                  {s.source.name}, {dayInWords(s.source.date)}
                </span>
                {all.slice(0, MOST).map((d) => (
                  <span key={d.path} className="block text-sm">
                    {fieldName(d.path)}: {d.after} instead of {d.before}
                  </span>
                ))}
                {all.length > MOST && (
                  <span className="block text-sm text-soft">
                    and {all.length - MOST} more; see the sheets themselves.
                  </span>
                )}
              </span>
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}

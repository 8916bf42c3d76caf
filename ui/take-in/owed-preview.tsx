import { doesLine, fittedTo } from "@/core/job";
import {
  lineName,
  minutesWords,
  OrderCycleError,
  owedFor,
  planOwed,
  type OwedPlan,
  type RuleBook,
} from "@/core/owed";
import type { Sheet } from "@/core/sheet";
import type { Vehicle } from "@/core/vehicle";
import type { IntakeDraft } from "./use-intake";

/** What will be owed, as the intake is typed. */
export function OwedPreview({
  vehicle,
  draft,
  book,
  sheets,
}: {
  vehicle: Vehicle;
  draft: IntakeDraft;
  book: RuleBook;
  sheets: readonly Sheet[];
}) {
  const lines = owedFor(
    draft.happenings,
    fittedTo(vehicle, draft.answers),
    book.rules,
    sheets.map((s) => ({ system: s.appliesTo.system, kind: s.method })),
  );
  let plan: OwedPlan | null = null;
  try {
    plan = planOwed(lines, book);
  } catch (error) {
    if (!(error instanceof OrderCycleError)) throw error;
  }
  const ordered = plan?.steps.map((s) => s.line) ?? lines;
  return (
    <section aria-label="Owed" className="mt-4 border-l-4 border-settled bg-sheet p-3">
      <p className="text-base font-semibold">
        {lines.length === 0 ? "Nothing is owed by the shop’s rules" : "This owes"}
      </p>
      <ol className="mt-1 text-base">
        {ordered.map((l) => (
          <li key={l.id}>
            {lineName(l)}
            {!sheets.some((s) => doesLine(s, l)) && (
              <span className="text-soft">, no sheet of the shop’s</span>
            )}
          </li>
        ))}
      </ol>
      {plan && lines.length > 0 && (
        <p className="mt-1 text-sm text-soft">
          About {minutesWords(plan.bayMinutes)} in the bay
          {plan.roadMinutes > 0 && `, ${minutesWords(plan.roadMinutes)} on the road`}.
        </p>
      )}
      {sheets.length > 0 && (
        <p className="mt-1 text-sm text-soft">
          {sheets.length === 1 ? "Sheet" : "Sheets"}: {sheets.map((s) => s.title).join("; ")}
        </p>
      )}
    </section>
  );
}

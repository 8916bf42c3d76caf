import type { Vehicle } from "@/core/vehicle";

/** What the VIN cannot say, asked only where the answer changes what is owed. */
export function Questions({
  questions,
  answers,
  onAnswer,
}: {
  questions: Vehicle["questions"];
  answers: Record<string, string>;
  onAnswer: (question: string, choice: string) => void;
}) {
  if (questions.length === 0) return null;
  return (
    <div id="take-in-questions" className="flex flex-col gap-3">
      {questions.map((q) => (
        <fieldset
          key={q.id}
          className="flex flex-wrap items-center gap-2 border-l-4 border-loose bg-sheet px-3 py-2"
        >
          <legend className="float-left mr-4 text-lg font-semibold">{q.ask}</legend>
          {q.choices.map((c) => (
            <button
              key={c.id}
              type="button"
              aria-pressed={answers[q.id] === c.id}
              onClick={() => onAnswer(q.id, c.id)}
              className={`min-h-14 rounded-md border-2 px-4 text-base font-semibold ${answers[q.id] === c.id ? "border-act bg-act text-on-act" : "border-hairline hover:border-ink"}`}
            >
              {c.name}
            </button>
          ))}
        </fieldset>
      ))}
    </div>
  );
}

"use client";

import { SYSTEMS, type SystemId } from "@/core/owed";
import { Rows, RowText } from "../book/rows";
import { Button } from "../primitives/button";

type Choice = { id: string; name: string; without: SystemId[] };
type Question = { id: string; ask: string; choices: Choice[] };

/**
 * What the VIN cannot say: each question with its answers, and which systems an answer leaves out.
 */
export function QuestionList({
  value,
  fitted,
  readOnly,
  onChange,
}: {
  value: unknown;
  fitted: SystemId[];
  readOnly: boolean;
  onChange: (questions: Question[]) => void;
}) {
  const questions = (Array.isArray(value) ? value : []) as Question[];
  const patch = (i: number, change: Partial<Question>): void =>
    onChange(questions.map((q, k) => (k === i ? { ...q, ...change } : q)));
  const add = (): void => {
    let n = questions.length + 1;
    while (questions.some((q) => q.id === `question-${n}`)) n++;
    onChange([
      ...questions,
      {
        id: `question-${n}`,
        ask: "",
        choices: [
          { id: "yes", name: "Yes", without: [] },
          { id: "no", name: "No", without: [] },
        ],
      },
    ]);
  };
  return (
    <section aria-label="Asked at take-in" className="border-t-2 border-ink pt-3">
      <h2 className="mb-1 text-sm font-semibold text-soft">
        Asked at take-in, because the VIN does not say
      </h2>
      <Rows
        items={questions}
        name="question"
        keyOf={(q) => q.id}
        problemAt={(i) => (questions[i]!.ask.trim() === "" ? "Write the question." : null)}
        readOnly={readOnly}
        onChange={onChange}
      >
        {(q, i) => (
          <span className="flex min-w-0 flex-1 flex-col gap-1">
            <RowText
              label={`Question ${i + 1}`}
              value={q.ask}
              readOnly={readOnly}
              onChange={(ask) => patch(i, { ask })}
              className="font-semibold"
            />
            {q.choices.map((c, k) => {
              const set = (change: Partial<Choice>): void =>
                patch(i, { choices: q.choices.map((x, n) => (n === k ? { ...x, ...change } : x)) });
              return (
                <span key={c.id} className="flex flex-wrap items-center gap-x-3">
                  <RowText
                    label={`Question ${i + 1}, answer ${k + 1}`}
                    value={c.name}
                    readOnly={readOnly}
                    onChange={(name) => set({ name })}
                    className="!min-w-32 max-w-56"
                  />
                  <span className="text-sm text-soft">then it lacks</span>
                  {fitted.map((s) => {
                    const on = c.without.includes(s);
                    return (
                      <button
                        key={s}
                        type="button"
                        disabled={readOnly}
                        aria-pressed={on}
                        onClick={() =>
                          set({
                            without: on ? c.without.filter((x) => x !== s) : [...c.without, s],
                          })
                        }
                        className={`min-h-12 rounded-md border px-2 text-sm ${on ? "border-act bg-act font-semibold text-on-act" : "border-hairline"}`}
                      >
                        {SYSTEMS[s]}
                      </button>
                    );
                  })}
                </span>
              );
            })}
          </span>
        )}
      </Rows>
      {!readOnly && (
        <Button look="quiet" className="mt-1" onClick={add}>
          + Question
        </Button>
      )}
    </section>
  );
}

import type { ReactNode } from "react";

/**
 * The next physical act: one sentence, one number or one thing to type, one big action. The same on
 * every stage.
 */
export function NextBar({
  tone = "act",
  say,
  detail,
  figure,
  children,
  caution,
}: {
  tone?: "act" | "loose" | "settled" | "stop";
  say: ReactNode;
  detail?: ReactNode;
  figure?: string;
  children?: ReactNode;
  caution?: string;
}) {
  const edge = {
    act: "border-act",
    loose: "border-loose border-dashed",
    settled: "border-settled",
    stop: "border-stop",
  }[tone];
  return (
    <section
      aria-label="Next"
      aria-live="polite"
      className={`border-t-4 ${edge} bg-sheet px-3 py-2 md:px-4 md:py-3`}
    >
      {caution && (
        <p
          className="mb-2 border-l-4 border-loose pl-3 text-base font-semibold text-loose"
          role="note"
        >
          {caution}
        </p>
      )}
      <div className="flex flex-col gap-2 md:flex-row md:items-center md:gap-5">
        <div className="min-w-0 flex-1">
          <p className="text-xl font-semibold leading-tight text-pretty md:text-[27px]">{say}</p>
          {detail && (
            <div className="mt-0.5 text-sm leading-snug text-soft md:mt-1 md:text-base">
              {detail}
            </div>
          )}
        </div>
        {figure && (
          <p className="figure shrink-0 text-5xl font-semibold leading-none tracking-tighter md:text-[60px]">
            {figure}
          </p>
        )}
        {children && <div className="flex shrink-0 flex-wrap items-center gap-2">{children}</div>}
      </div>
    </section>
  );
}

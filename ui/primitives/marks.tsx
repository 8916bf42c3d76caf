/** State of a thing, told by shape first and colour second. */
export type MarkState = "settled" | "loose" | "doubt" | "stop" | "open" | "none" | "struck";

const WORDS: Record<MarkState, string> = {
  settled: "settled",
  loose: "loose",
  doubt: "in doubt",
  stop: "stopped",
  open: "not begun",
  none: "not asked for",
  struck: "struck",
};

export function Mark({ state, size = 14 }: { state: MarkState; size?: number }) {
  const shape = state === "struck" ? "open" : state;
  return (
    <span
      role="img"
      aria-label={WORDS[state]}
      className={`mark-${shape} inline-block shrink-0`}
      style={{ width: size, height: size }}
    />
  );
}

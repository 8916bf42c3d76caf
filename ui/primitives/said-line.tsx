/** What became of something that was asked of the shop. */
export type Said = { ok: boolean; words: string };

/** It is told where it was asked: as a quiet line, or as one that wants to be read. */
export function SaidLine({ said }: { said: Said | null }) {
  if (!said) return null;
  return (
    <p
      role={said.ok ? "status" : "alert"}
      className={`mb-3 whitespace-pre-line border-l-4 pl-3 text-lg ${said.ok ? "border-settled" : "border-stop text-stop"}`}
    >
      {said.words}
    </p>
  );
}

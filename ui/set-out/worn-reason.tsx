/** Why a board that the kit calls worn may hang all the same; it goes on the record. */
export function WornReason({
  value,
  onChange,
}: {
  value: string;
  onChange: (reason: string) => void;
}) {
  return (
    <input
      aria-label="Why the worn board may hang"
      value={value}
      placeholder="its pattern is whole"
      onChange={(e) => onChange(e.target.value)}
      className="min-h-14 w-56 border-b-2 border-ink bg-transparent px-1 text-lg outline-none placeholder:text-soft focus:border-act"
    />
  );
}

/** Who drove and who watched. */
export type Crew = { drove: string; watched: string };

/** Two fields for the two in the car. */
export function CrewFields({
  crew,
  disabled = false,
  onChange,
}: {
  crew: Crew;
  disabled?: boolean;
  onChange: (crew: Crew) => void;
}) {
  return (
    <div className="mb-3 flex flex-wrap gap-x-6 gap-y-2">
      {(
        [
          ["drove", "Who drives"],
          ["watched", "Who watches"],
        ] as const
      ).map(([key, label]) => (
        <label key={key} className="flex items-baseline gap-2 text-base text-soft">
          {label}
          <input
            value={crew[key]}
            maxLength={80}
            disabled={disabled}
            onChange={(e) => onChange({ ...crew, [key]: e.target.value })}
            className="min-h-12 w-36 border-b-2 border-ink bg-transparent text-lg text-ink outline-none"
          />
        </label>
      ))}
    </div>
  );
}

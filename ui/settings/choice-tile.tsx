import { Mark } from "../primitives/marks";

/** Something a shop is bound by or not: its name, what it means, and whether it is on. */
export function ChoiceTile({
  on,
  name,
  note,
  disabled,
  onPress,
}: {
  on: boolean;
  name: string;
  note: string;
  disabled: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      disabled={disabled}
      aria-pressed={on}
      onClick={onPress}
      className={`flex min-h-16 items-center gap-3 rounded-md border-2 bg-sheet px-4 py-2 text-left ${on ? "border-act" : "border-hairline"}`}
    >
      <Mark state={on ? "settled" : "open"} />
      <span>
        <span className="block text-lg font-semibold leading-tight">{name}</span>
        <span className="text-base text-soft">{note}</span>
      </span>
    </button>
  );
}

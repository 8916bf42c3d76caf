import { useId, type InputHTMLAttributes, type ReactNode } from "react";

type Props = Omit<InputHTMLAttributes<HTMLInputElement>, "id"> & {
  label: string;
  hint?: ReactNode;
  problem?: string | null;
  /** The button that takes what is written, on the line itself whatever the note below says. */
  action?: ReactNode;
};

/** One labelled line to write on. A problem replaces the hint and says what to do. */
export function Field({ label, hint, problem, action, className = "", ...rest }: Props) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold text-soft">
        {label}
      </label>
      <div className="flex items-end gap-2">
        <input
          id={id}
          aria-invalid={Boolean(problem)}
          aria-describedby={`${id}-note`}
          className={`min-h-14 w-full min-w-0 flex-1 border-b-2 bg-transparent px-1 text-xl outline-none focus:border-act ${problem ? "border-stop" : "border-ink"}`}
          {...rest}
        />
        {action}
      </div>
      <p
        id={`${id}-note`}
        className={`mt-1 text-sm ${problem || hint ? "min-h-5" : ""} ${problem ? "text-stop" : "text-soft"}`}
      >
        {problem ?? hint}
      </p>
    </div>
  );
}

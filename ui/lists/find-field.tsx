type Props = {
  label: string;
  placeholder: string;
  value: string;
  onChange: (text: string) => void;
  onEnter?: () => void;
};

/** The line over a list that what is looked for is written on. */
export const FindField = ({ label, placeholder, value, onChange, onEnter }: Props) => (
  <label className="flex min-w-60 flex-1 items-center border-b-2 border-ink focus-within:border-act">
    <span className="sr-only">{label}</span>
    <input
      type="search"
      value={value}
      onChange={(e) => onChange(e.target.value)}
      onKeyDown={(e) => e.key === "Enter" && onEnter?.()}
      placeholder={placeholder}
      className="min-h-14 w-full bg-transparent px-1 text-xl outline-none placeholder:text-soft"
    />
  </label>
);

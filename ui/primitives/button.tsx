import { cva, type VariantProps } from "class-variance-authority";
import Link from "next/link";
import type { ButtonHTMLAttributes, ComponentProps } from "react";

/** The one place that decides how what can be pressed looks; a use names its look and size. */
const shape = cva(
  "inline-flex items-center justify-center gap-2 rounded-md font-semibold transition-colors duration-100 disabled:opacity-45 select-none print:hidden",
  {
    variants: {
      look: {
        /** What is to be done next: one in a view. */
        act: "bg-act px-5 text-on-act hover:brightness-110",
        /** Another way to go on. */
        plain: "border-2 border-ink bg-sheet px-5 text-ink hover:bg-wash",
        /** A tool that lies at hand. */
        tool: "shrink-0 border border-hairline bg-sheet px-2.5 text-ink hover:bg-wash",
        /** A tool that is in use. */
        lit: "shrink-0 border border-act bg-sheet px-2.5 text-act hover:bg-wash",
        quiet: "px-3 text-ink hover:bg-wash",
        faint: "px-3 text-soft hover:bg-wash",
        stop: "border-2 border-stop bg-sheet px-5 text-stop hover:bg-wash",
      },
      size: {
        normal: "min-h-12 text-base",
        large: "min-h-16 text-xl",
        /** For a thumb in a glove, the phone on the stand. */
        great: "min-h-20 w-full text-2xl",
      },
    },
    defaultVariants: { look: "plain", size: "normal" },
  },
);

type Shape = VariantProps<typeof shape>;

export function Button({
  look,
  size,
  className,
  type = "button",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & Shape) {
  return <button type={type} className={shape({ look, size, className })} {...rest} />;
}

export function ButtonLink({
  look,
  size,
  className,
  ...rest
}: ComponentProps<typeof Link> & Shape) {
  return <Link className={shape({ look, size, className })} {...rest} />;
}

import Link from "next/link";
import type { ButtonHTMLAttributes, ComponentProps } from "react";

type Look = "act" | "plain" | "quiet" | "stop";

const BASE =
  "inline-flex items-center justify-center gap-2 rounded-md px-5 font-semibold transition-colors duration-100 disabled:opacity-45 select-none";
const LOOKS: Record<Look, string> = {
  act: "bg-act text-on-act hover:brightness-110",
  plain: "border-2 border-ink bg-sheet text-ink hover:bg-wash",
  quiet: "text-ink hover:bg-wash",
  stop: "border-2 border-stop text-stop bg-sheet hover:bg-wash",
};
const SIZES = { normal: "min-h-12 text-base", large: "min-h-16 text-xl" } as const;

type Shape = { look?: Look; size?: keyof typeof SIZES };

const classes = (look: Look, size: keyof typeof SIZES, extra = ""): string =>
  `${BASE} ${LOOKS[look]} ${SIZES[size]} ${extra}`;

export function Button({
  look = "plain",
  size = "normal",
  className,
  type = "button",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & Shape) {
  return <button type={type} className={classes(look, size, className)} {...rest} />;
}

export function ButtonLink({
  look = "plain",
  size = "normal",
  className,
  ...rest
}: ComponentProps<typeof Link> & Shape) {
  return <Link className={classes(look, size, className)} {...rest} />;
}

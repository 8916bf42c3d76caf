"use client";

import { useRef, type ComponentProps } from "react";
import { Button } from "./button";

/** Takes a file from this device, as text. The same one can be taken again after a mistake. */
export function FileButton({
  noun,
  accept = "application/json,.json",
  say = "Import a file",
  onText,
  ...rest
}: Pick<ComponentProps<typeof Button>, "look" | "size"> & {
  /** What the file is, for whoever cannot see where the button stands. */
  noun: string;
  /** Kinds of files that are offered; JSON where it is not said. */
  accept?: string;
  say?: string;
  onText: (text: string) => void;
}) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={file}
        type="file"
        accept={accept}
        className="sr-only"
        id={`${noun.replace(" ", "-")}-file`}
        aria-label={`${noun} file`}
        tabIndex={-1}
        onChange={(e) => {
          const [chosen] = e.target.files ?? [];
          if (chosen) void chosen.text().then(onText);
          e.target.value = "";
        }}
      />
      <Button {...rest} onClick={() => file.current?.click()}>
        {say}
      </Button>
    </>
  );
}

"use client";

import { useState } from "react";
import type { Picture } from "@/core/sheet";
import { Dialog } from "../primitives/dialog";

/** A picture of the shop's book by the name it is kept under; words in its place where it is not here. */
export function BookPicture({ picture, whole }: { picture: Picture; whole?: boolean }) {
  const [missing, setMissing] = useState(false);
  if (missing)
    return (
      <span className="flex h-full items-center px-2 text-sm text-soft">
        This picture is not in this shop.
      </span>
    );
  return (
    // Kept pictures are already small and never change; there is nothing for an image service to do.
    // eslint-disable-next-line @next/next/no-img-element
    <img
      src={`/api/photos/${picture.photo}`}
      alt={picture.says}
      onError={() => setMissing(true)}
      className={whole ? "max-h-[64dvh] w-full object-contain" : "h-full w-full object-cover"}
    />
  );
}

/** Pictures that hang at a step or a check, small; each opens large with its words. */
export function Pictures({ pictures }: { pictures: readonly Picture[] | undefined }) {
  const [open, setOpen] = useState<Picture | null>(null);
  if (!pictures || pictures.length === 0) return null;
  return (
    <span className="mt-2 flex flex-wrap gap-2">
      {pictures.map((p, i) => (
        <button
          key={`${p.photo}-${i}`}
          type="button"
          onClick={() => setOpen(p)}
          aria-label={`Look at the picture: ${p.says || i + 1}`}
          className="w-44 overflow-hidden rounded-md border border-hairline bg-sheet text-left"
        >
          <span className="block h-24">
            <BookPicture picture={p} />
          </span>
          {p.says && <span className="line-clamp-2 px-2 py-1 text-sm font-normal">{p.says}</span>}
        </button>
      ))}
      <Dialog
        open={open !== null}
        onClose={() => setOpen(null)}
        title={open?.says || "Picture"}
        wide
      >
        {open && <BookPicture picture={open} whole />}
      </Dialog>
    </span>
  );
}

"use client";

import { useEffect, useState, type ComponentType } from "react";
import type { DialogProps } from "./dialog-sheet";

type Sheet = ComponentType<DialogProps>;

/** Kept for the page's life: every dialog is the same sheet. */
let kept: Sheet | null = null;
const fetchSheet = async (): Promise<Sheet> =>
  (kept ??= (await import("./dialog-sheet")).DialogSheet);

/** When what is not needed for the first look is fetched, so that it is there without the shop. */
const LATER_MS = 4000;
const AGAIN_MS = 800;

/**
 * The one dialog: a sheet of paper laid over the bench. What draws it is fetched once the page has
 * come to rest, or when it is first opened; where the shop does not answer, again and again.
 */
export function Dialog(props: DialogProps) {
  const [sheet, setSheet] = useState<{ Sheet: Sheet } | null>(kept && { Sheet: kept });
  const { open } = props;
  const there = sheet !== null;
  useEffect(() => {
    if (there) return;
    let timer: ReturnType<typeof setTimeout>;
    const get = (): void =>
      void fetchSheet().then(
        (Sheet) => setSheet({ Sheet }),
        () => (timer = setTimeout(get, AGAIN_MS)),
      );
    timer = setTimeout(get, open ? 0 : LATER_MS);
    return () => clearTimeout(timer);
  }, [there, open]);
  return sheet ? <sheet.Sheet {...props} /> : null;
}

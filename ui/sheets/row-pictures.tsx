"use client";

import { ImagePlus } from "lucide-react";
import { useState } from "react";
import type { Picture } from "@/core/sheet";
import { RowText } from "../book/rows";
import { BookPicture } from "../photos/pictures";
import { sendPhoto } from "../photos/use-upload";

type Props = {
  /** What the pictures hang at: "Step 3". */
  at: string;
  pictures: unknown;
  readOnly: boolean;
  className?: string;
  /** Undefined takes the field away. */
  onChange: (pictures: Picture[] | undefined) => void;
};

/** More than the sheet's format lets hang at one step is not offered. */
const MOST = 4;

/** The pictures of one row of a sheet: added from a file or the camera, told in words, taken out. */
export function RowPictures({ at, pictures, readOnly, className = "", onChange }: Props) {
  const list = (Array.isArray(pictures) ? pictures : []) as Picture[];
  const [sending, setSending] = useState(false);
  const [message, setMessage] = useState<string | null>(null);
  const put = (next: Picture[]): void => onChange(next.length > 0 ? next : undefined);
  const add = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setSending(true);
    setMessage(null);
    const answer = await sendPhoto(file);
    setSending(false);
    if ("photo" in answer) put([...list, { photo: answer.photo, says: "" }]);
    else
      setMessage("refused" in answer ? answer.refused : "No connection to the shop: add it again.");
  };
  if (readOnly && list.length === 0) return null;
  return (
    <span className={`order-last flex w-full flex-wrap items-center gap-2 ${className}`}>
      {list.map((p, i) => (
        <span key={`${p.photo}-${i}`} className="flex min-w-72 flex-1 items-center gap-1">
          <span className="h-12 w-16 overflow-hidden rounded-md border border-hairline">
            <BookPicture picture={p} />
          </span>
          <RowText
            label={`${at}: what picture ${i + 1} shows`}
            hint="What it shows"
            value={p.says}
            readOnly={readOnly}
            onChange={(says) => put(list.map((x, k) => (k === i ? { ...x, says } : x)))}
          />
          {!readOnly && (
            <button
              type="button"
              aria-label={`${at}: take picture ${i + 1} out`}
              onClick={() => put(list.filter((_, k) => k !== i))}
              className="min-h-12 min-w-10 rounded-md hover:bg-wash"
            >
              ×
            </button>
          )}
        </span>
      ))}
      {!readOnly && list.length < MOST && (
        <label className="flex min-h-12 cursor-pointer items-center gap-2 rounded-md px-2 text-base font-semibold text-act hover:bg-wash focus-within:outline focus-within:outline-2 focus-within:outline-act">
          <ImagePlus size={18} aria-hidden />
          {sending ? "Sending" : "Picture"}
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp"
            aria-label={`${at}: add a picture`}
            className="sr-only"
            onChange={(e) => {
              void add(e.target.files?.[0]);
              e.target.value = "";
            }}
          />
        </label>
      )}
      {message && (
        <span role="alert" className="text-sm text-stop">
          {message}
        </span>
      )}
    </span>
  );
}

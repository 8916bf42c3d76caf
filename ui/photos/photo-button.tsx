"use client";

import { Camera } from "lucide-react";
import { useEffect } from "react";
import { eventsOf, PHOTO_SUBJECTS, strikes, type PhotoSubject } from "@/core/job";
import { useJob } from "../bench/job-store";
import { useUpload } from "./use-upload";

/** A photo in one touch, where the hands are at work; it is looked at and left out under Hand over. */
export function PhotoButton({ subject }: { subject: PhotoSubject }) {
  const { events, head, write, say } = useJob();
  const { send, sending, waiting, message } = useUpload(head.id, subject, (p) =>
    write({ kind: "photo", subject, ...p }),
  );
  useEffect(() => {
    if (message) say(message);
  }, [message, say]);
  const struck = strikes(events);
  const taken = eventsOf(events, "photo").filter(
    (e) => e.body.subject === subject && !struck.has(e.id),
  ).length;
  return (
    <label className="flex min-h-12 shrink-0 cursor-pointer items-center gap-2 rounded-md border border-hairline bg-sheet px-3 text-base font-semibold hover:bg-wash focus-within:outline focus-within:outline-2 focus-within:outline-act">
      <Camera size={18} aria-hidden />
      {sending > 0 ? (
        "Sending"
      ) : waiting > 0 ? (
        `${waiting} wait`
      ) : (
        <>
          {/* The row it stands in is full on a tablet: the picture says it there. */}
          <span className="hidden 2xl:inline">Photo</span>
          {taken > 0 && <span className="figure">{taken}</span>}
        </>
      )}
      <input
        type="file"
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        aria-label={`Photo: ${PHOTO_SUBJECTS[subject]}`}
        className="sr-only"
        onChange={(e) => {
          void send([...(e.target.files ?? [])]);
          e.target.value = "";
        }}
      />
    </label>
  );
}

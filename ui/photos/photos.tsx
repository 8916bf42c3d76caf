"use client";

import { Camera } from "lucide-react";
import { useId, useState } from "react";
import { eventsOf, PHOTO_SUBJECTS, strikes, type PhotoSubject } from "@/core/job";
import { useJob } from "../bench/job-store";
import { ReasonDialog } from "../owed/reason-dialog";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { useUpload } from "./use-upload";
import { useTimes } from "../settings";

/** One place for each thing worth a photo: empty places take one, full ones show it. */
export function Photos({ subjects }: { subjects: readonly PhotoSubject[] }) {
  return (
    <div className="grid grid-cols-2 gap-2 sm:grid-cols-[repeat(auto-fill,minmax(150px,1fr))]">
      {subjects.map((s) => (
        <Place key={s} subject={s} />
      ))}
    </div>
  );
}

function Place({ subject }: { subject: PhotoSubject }) {
  const { dateAndTime } = useTimes();
  const { events, write, me, head } = useJob();
  const struck = strikes(events);
  const mine = eventsOf(events, "photo").filter(
    (e) => e.body.subject === subject && !struck.has(e.id),
  );
  const [open, setOpen] = useState<string | null>(null);
  const [striking, setStriking] = useState<string | null>(null);
  const { send, resend, sending, waiting, message, forget } = useUpload(head.id, subject, (p) =>
    write({ kind: "photo", subject, ...p }),
  );
  const id = useId();
  const name = PHOTO_SUBJECTS[subject];
  const shown = mine.find((e) => e.id === open);
  const add = me.role !== "viewer" && (
    <label
      htmlFor={id}
      className={`flex cursor-pointer items-center justify-center gap-2 rounded-md font-semibold text-act hover:bg-wash focus-within:outline focus-within:outline-2 focus-within:outline-act ${mine.length > 0 ? "min-h-12 text-sm" : "h-full min-h-24 flex-col text-base"}`}
    >
      <Camera size={mine.length > 0 ? 18 : 26} aria-hidden />
      {sending > 0 ? "Sending" : mine.length > 0 ? "One more" : name}
      <input
        id={id}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple
        aria-label={`Photo: ${name}`}
        className="sr-only"
        onChange={(e) => {
          void send([...(e.target.files ?? [])]);
          e.target.value = "";
        }}
      />
    </label>
  );
  return (
    <div
      className={`flex min-w-0 flex-col rounded-md bg-sheet ${mine.length > 0 ? "border border-hairline" : "border-2 border-dashed border-hairline"}`}
    >
      {mine.length > 0 && (
        <button
          type="button"
          onClick={() => setOpen(mine.at(-1)!.id)}
          className="relative h-28 overflow-hidden rounded-t-md"
          aria-label={`Look at the photo: ${name}`}
        >
          {/* Kept photos are already small and never change; there is nothing for an image service to do. */}
          {/* eslint-disable-next-line @next/next/no-img-element */}
          <img
            src={`/api/photos/${mine.at(-1)!.body.photo}`}
            alt=""
            className="h-full w-full object-cover"
          />
          <span className="absolute inset-x-0 bottom-0 bg-sheet/90 px-2 py-0.5 text-left text-sm font-semibold">
            {name}
            {mine.length > 1 && `, ${mine.length}`}
          </span>
        </button>
      )}
      {message && (
        <p role="alert" className={`p-2 text-sm ${waiting > 0 ? "text-loose" : "text-stop"}`}>
          {waiting > 1 ? `${waiting} photos wait. ` : ""}
          {message}
        </p>
      )}
      {waiting > 0 && sending === 0 ? (
        <div className="flex gap-1 p-1">
          <Button look="quiet" onClick={() => void resend()}>
            Send again
          </Button>
          <Button look="quiet" onClick={forget}>
            Leave it
          </Button>
        </div>
      ) : (
        add
      )}
      <Dialog open={shown !== undefined} onClose={() => setOpen(null)} title={name} wide>
        {shown && (
          <>
            {/* eslint-disable-next-line @next/next/no-img-element */}
            <img
              src={`/api/photos/${shown.body.photo}`}
              alt={name}
              className="max-h-[64dvh] w-full object-contain"
            />
            <p className="mt-2 text-base text-soft">
              {shown.body.takenAt
                ? `Taken ${dateAndTime(shown.body.takenAt)} by the camera’s clock. `
                : ""}
              Kept {dateAndTime(shown.at)} by {shown.by.name}.
            </p>
            <div className="mt-3 flex flex-wrap gap-2">
              {mine.length > 1 && (
                <Button onClick={() => setOpen(mine[(mine.indexOf(shown) + 1) % mine.length]!.id)}>
                  Next photo
                </Button>
              )}
              {me.role !== "viewer" && (
                <Button
                  look="quiet"
                  onClick={() => {
                    setStriking(shown.id);
                    setOpen(null);
                  }}
                >
                  Strike it
                </Button>
              )}
            </div>
          </>
        )}
      </Dialog>
      <ReasonDialog
        open={striking !== null}
        title="Strike the photo"
        note="It stays on the slip as struck, with your reason."
        label="Why"
        action="Strike it"
        onClose={() => setStriking(null)}
        onReason={(reason) => {
          if (striking) write({ kind: "strike", target: striking, reason });
          setStriking(null);
        }}
      />
    </div>
  );
}

import { useCallback, useState } from "react";

export type SentPhoto = { photo: string; takenAt: string | null };

/** Sends photos to the shop, one after the other. What could not be sent stays here, to be sent again. */
export function useUpload(onSent: (photo: SentPhoto) => void) {
  const [sending, setSending] = useState(0);
  const [failed, setFailed] = useState<{ file: File; message: string } | null>(null);
  const send = useCallback(
    async (files: readonly File[]) => {
      setFailed(null);
      setSending((n) => n + files.length);
      for (const file of files) {
        const answer = await sendPhoto(file);
        setSending((n) => n - 1);
        if ("message" in answer) setFailed({ file, message: answer.message });
        else onSent(answer);
      }
    },
    [onSent],
  );
  return { send, sending, failed, forget: () => setFailed(null) };
}

async function sendPhoto(file: File): Promise<SentPhoto | { message: string }> {
  const response = await fetch("/api/photos", { method: "POST", body: file }).catch(() => null);
  if (!response) return { message: "No connection to the shop. The photo is kept here; send it again." };
  const body = (await response.json().catch(() => null)) as (SentPhoto & { error?: string }) | null;
  if (response.ok && body) return { photo: body.photo, takenAt: body.takenAt };
  return { message: body?.error ?? "The shop could not keep the photo. Send it again." };
}

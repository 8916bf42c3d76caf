import { useCallback, useEffect, useRef, useState } from "react";
import { dropWaiting, keepWaiting, waitingFor, type Waiting } from "./waiting";

export type SentPhoto = { photo: string; takenAt: string | null };

/**
 * Sends the photos of one place of a job to the shop, one after the other. Each is kept on the
 * tablet before it is sent; what cannot be sent waits there, over a reload too, and goes when the
 * shop answers. What the shop refuses is said and let go.
 */
export function useUpload(jobId: string, subject: string, onSent: (photo: SentPhoto) => void) {
  const [sending, setSending] = useState(0);
  const [waiting, setWaiting] = useState<Waiting[]>([]);
  const [message, setMessage] = useState<string | null>(null);
  const sent = useRef(onSent);
  useEffect(() => void (sent.current = onSent));

  const push = useCallback(async (photos: readonly Waiting[]) => {
    if (photos.length === 0) return;
    setMessage(null);
    setSending((n) => n + photos.length);
    for (const photo of photos) {
      const answer = await sendPhoto(photo.file);
      setSending((n) => n - 1);
      if ("unreached" in answer) {
        setMessage(answer.unreached);
        continue;
      }
      await dropWaiting(photo.id);
      setWaiting((list) => list.filter((w) => w.id !== photo.id));
      if ("refused" in answer) setMessage(answer.refused);
      else sent.current(answer);
    }
  }, []);

  const send = useCallback(
    async (files: readonly File[]) => {
      const now = Date.now();
      const photos = files.map((file, i): Waiting => ({
        id: `${now + i}-${Math.random().toString(36).slice(2, 8)}`,
        jobId,
        subject,
        file,
      }));
      for (const photo of photos) await keepWaiting(photo);
      setWaiting((list) => [...list, ...photos]);
      await push(photos);
    },
    [jobId, subject, push],
  );

  useEffect(() => {
    let live = true;
    const again = (): void =>
      void waitingFor(jobId, subject).then((list) => {
        if (!live || list.length === 0) return;
        setWaiting(list);
        void push(list);
      });
    again();
    window.addEventListener("online", again);
    return () => {
      live = false;
      window.removeEventListener("online", again);
    };
  }, [jobId, subject, push]);

  const forget = (): void => {
    for (const photo of waiting) void dropWaiting(photo.id);
    setWaiting([]);
    setMessage(null);
  };
  return { send, resend: () => push(waiting), sending, waiting: waiting.length, message, forget };
}

/** Hands one picture to the shop: the name it is kept under, or why not. */
export async function sendPhoto(
  file: Blob,
): Promise<SentPhoto | { unreached: string } | { refused: string }> {
  const response = await fetch("/api/photos", { method: "POST", body: file }).catch(() => null);
  if (!response)
    return {
      unreached:
        "No connection to the shop. It is kept on this tablet and sent when the shop answers.",
    };
  const body = (await response.json().catch(() => null)) as (SentPhoto & { error?: string }) | null;
  if (response.ok && body) return { photo: body.photo, takenAt: body.takenAt };
  // A photo that is none is let go with its reason; anything else may pass.
  if (response.status === 415 || response.status === 413)
    return { refused: body?.error ?? "The shop cannot keep this file." };
  return {
    unreached:
      body?.error ?? "The shop could not keep it. It stays on this tablet to be sent again.",
  };
}

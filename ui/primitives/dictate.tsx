"use client";

import { Mic } from "lucide-react";
import { useEffect, useRef, useState } from "react";

/** What a browser that understands speech brings with it. */
type Heard = { results: ArrayLike<ArrayLike<{ transcript: string }>> };
type Recognition = {
  lang: string;
  start: () => void;
  abort: () => void;
  onresult: ((e: Heard) => void) | null;
  onerror: ((e: { error: string }) => void) | null;
  onend: (() => void) | null;
};
type Speaking = { SpeechRecognition?: new () => Recognition };

/** How a browser makes one; null where it understands no speech. */
const recognition = (): (new () => Recognition) | null => {
  const w = globalThis as Speaking & { webkitSpeechRecognition?: new () => Recognition };
  return w.SpeechRecognition ?? w.webkitSpeechRecognition ?? null;
};

const UNHEARD: Record<string, string> = {
  "not-allowed": "The browser may not listen. Allow the microphone for this page, or type it.",
  "no-speech": "Nothing was heard. Tap and speak again, or type it.",
};

/**
 * Takes words by ear, where the browser can: for hands in gloves. Many browsers send what they hear to
 * their maker, and the button says so. Nothing is kept but the words, and those can be changed.
 */
export function Dictate({ onWords }: { onWords: (words: string) => void }) {
  const [listening, setListening] = useState(false);
  const [unheard, setUnheard] = useState<string | null>(null);
  const running = useRef<Recognition | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const Make = recognition();
  if (!Make) return null;
  const listen = (): void => {
    setUnheard(null);
    const ear = new Make();
    running.current = ear;
    ear.lang = navigator.language || "en";
    ear.onresult = (e) =>
      onWords(
        Array.from(e.results, (r) => r[0]?.transcript ?? "")
          .join(" ")
          .trim(),
      );
    ear.onerror = (e) =>
      setUnheard(UNHEARD[e.error] ?? "This browser could not take it down. Type it.");
    ear.onend = () => setListening(false);
    ear.start();
    setListening(true);
  };
  return (
    <span className="inline-flex items-center gap-2">
      <button
        type="button"
        aria-pressed={listening}
        aria-label="Dictate"
        title="Speak the words. Your browser may send what it hears to its maker."
        onClick={() => (listening ? running.current?.abort() : listen())}
        className={`inline-flex size-14 items-center justify-center rounded-md border-2 ${listening ? "border-act bg-act text-on-act" : "border-ink bg-sheet hover:bg-wash"}`}
      >
        <Mic aria-hidden size={26} />
      </button>
      {(listening || unheard) && (
        <span role="status" className="max-w-60 text-base text-soft">
          {listening ? "Listening" : unheard}
        </span>
      )}
    </span>
  );
}

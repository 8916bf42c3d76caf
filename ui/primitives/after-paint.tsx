import { startTransition, useEffect, useState, type ReactNode } from "react";

/**
 * Draws its children a frame after what stands around them, bit by bit: a large sheet comes up at
 * once and fills in the next moment, and neither holds up the hand.
 */
export function AfterPaint({ children }: { children: ReactNode }) {
  const [painted, setPainted] = useState(false);
  useEffect(() => {
    const frame = requestAnimationFrame(() =>
      setTimeout(() => startTransition(() => setPainted(true))),
    );
    return () => cancelAnimationFrame(frame);
  }, []);
  return painted ? children : <div className="h-[60dvh]" />;
}

/** How a camera looks out of its vehicle: degrees to the left of ahead, and down. */
export type Look = { turnDeg: number; downDeg: number };

/**
 * How the cameras of a system look out, as they are mounted. What looks at the ground beside a vehicle
 * has the sun in its lens only where it stands low.
 */
const LOOKS: Record<string, readonly Look[]> = {
  "forward-camera": [{ turnDeg: 0, downDeg: 2 }],
  "rear-camera": [{ turnDeg: 180, downDeg: 25 }],
  "trailer-camera": [{ turnDeg: 180, downDeg: 20 }],
  "side-camera": [
    { turnDeg: 100, downDeg: 15 },
    { turnDeg: -100, downDeg: 15 },
  ],
  "mirror-camera": [
    { turnDeg: 165, downDeg: 5 },
    { turnDeg: -165, downDeg: 5 },
  ],
  "surround-view": [
    { turnDeg: 0, downDeg: 30 },
    { turnDeg: 180, downDeg: 35 },
    { turnDeg: 90, downDeg: 45 },
    { turnDeg: -90, downDeg: 45 },
  ],
};

const NONE: readonly Look[] = [];

/** Every camera of a system; none for what is no camera and minds no sun. */
export const looksOf = (system: string): readonly Look[] => LOOKS[system] ?? NONE;

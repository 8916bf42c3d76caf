import type { Sheet } from "@/core/sheet";
import { BASELINE, maintainer, pressures } from "./checks";

/** Made-up sheets of front radars: a reflector on a small stand. Every figure is invented. */
const radar = (
  id: string,
  vehicle: string,
  title: string,
  figures: { alongMm: number; acrossMm: number; heightMm: number },
  entry: Sheet["run"] = [],
): Sheet => ({
  format: "iridel.sheet/2",
  id,
  version: 1,
  status: "checked",
  title,
  source: {
    name: "Shop workbook, Hollin Quay, radars",
    date: "2026-10-24",
    enteredBy: "Oskar Veld",
    checkedBy: "Mara Quill",
    checkedOn: "2026-10-26",
  },
  appliesTo: {
    vehicles: [vehicle],
    system: "front-radar",
    after: [
      "bumper-touched",
      "grille-touched",
      "collision-near",
      "alignment",
      "suspension",
      "ride-height",
      "airbag",
      "unit-replaced",
      "unit-programmed",
      "code-stored",
      "complaint",
    ],
  },
  reason:
    "The radar measures how far the car ahead is; turned by a degree it watches the car in the next lane.",
  method: "static",
  setups: [
    {
      id: "reflector",
      name: "reflector before the radar",
      targets: [
        {
          id: "reflector",
          name: "the reflector",
          kind: "board",
          object: { code: "HQ-R1", widthMm: 250, is: "reflector" },
          datum: "rear-axle-normal",
          distanceFrom: "front-hub-line",
          placement: { ...figures, twistDeg: 0 },
          tolerance: { alongMm: 40, acrossMm: 12, twistDeg: 3, heightMm: 12, pitchDeg: 3 },
        },
      ],
    },
  ],
  cautions: [
    { say: "Chocks in and park brake on before anyone works at the wheels.", when: "wheels" },
    {
      say: "Do not look into the reflector’s laser; keep it off when nobody reads it.",
      when: "laser",
    },
  ],
  ready: [
    BASELINE,
    maintainer(12.4, 20),
    pressures("A soft tyre tips the radar.", 12),
    {
      id: "floor",
      ask: "Floor read at the four tyres and at the stand",
      why: "The reflector's height counts from the car's plane.",
      measure: { kind: "floor", slopeDeg: 0.6, twistMm: 5 },
    },
    {
      id: "radar-space",
      ask: "No metal in the beam: no tool trolley, no door frame, no board stand",
      why: "A radar takes the strongest echo for the reflector.",
      measure: { kind: "clear-zone", aheadMm: 4000, sideMm: 1000 },
    },
    {
      id: "cover",
      ask: "Cover before the radar clean, unpainted anew, no sticker",
      why: "Paint and stickers with metal in them bend the beam.",
    },
  ],
  run: [
    {
      id: "ign-on",
      kind: "ignition",
      say: "Ignition on. Do not start the engine.",
      to: "on",
      waitSeconds: 2,
      caution: "Hands away from the fans: they may start without warning.",
    },
    ...entry,
    { id: "still", kind: "prompt", say: "Nobody stands or walks before the car." },
    {
      id: "learn",
      kind: "routine",
      say: "Let the radar find the reflector.",
      routine: "front-radar-static",
      minQuality: 60,
    },
  ],
  prove: [
    {
      id: "radar-rescan",
      ask: "Codes read again: none from the radar",
      why: "A code that returns says the fault is still there.",
      measure: { kind: "rescan" },
    },
    {
      id: "radar-test",
      ask: "The radar has tested itself and is content",
      why: "Dirt, paint or a label before it shows in its own test, and in no code.",
      measure: { kind: "self-test" },
    },
    {
      id: "radar-answer",
      ask: "Misalignment the radar answered written on its bracket’s card",
      why: "The next repair begins from there.",
    },
  ],
});

export const RADARS: Sheet[] = [
  radar("fell-radar", "brannoch-fell", "Fell, front radar, reflector", {
    alongMm: 2600,
    acrossMm: 0,
    heightMm: 540,
  }),
  radar(
    "cirrin-radar",
    "norvane-cirrin",
    "Cirrin e, front radar, reflector",
    {
      alongMm: 2500,
      acrossMm: -120,
      heightMm: 510,
    },
    [
      {
        id: "enter",
        kind: "hold",
        say: "Hold both buttons of the cruise control together.",
        withinSeconds: 20,
        forSeconds: 3,
      },
    ],
  ),
];

import type { Sheet, Target } from "@/core/sheet";
import { maintainer, pressures } from "./checks";

/** The made-up sheet of a surround view: two mats beside the vehicle. Every figure is invented. */

const mat = (side: "left" | "right", code: string): Target => ({
  id: `mat-${side}`,
  name: `${side} mat`,
  kind: "mat",
  object: { code, widthMm: 900, lengthMm: 5600, aheadMm: 1300, side },
  datum: "rear-axle-normal",
  distanceFrom: "front-hub-line",
  placement: {
    alongMm: 0,
    acrossMm: side === "left" ? 1500 : -1500,
    twistDeg: 0,
    heightMm: 0,
  },
  tolerance: { alongMm: 15, twistDeg: 0.3 },
});

const MATS: [string, string] = ["mat-left", "mat-right"];

export const SURROUND: Sheet = {
  format: "iridel.sheet/2",
  id: "tarn-surround",
  version: 1,
  status: "checked",
  title: "Tarn, surround view, two mats",
  source: {
    name: "Shop workbook, Hollin Quay, cameras all round",
    date: "2026-10-02",
    enteredBy: "Ines Tarbet",
    checkedBy: "Mara Quill",
    checkedOn: "2026-10-05",
  },
  appliesTo: {
    vehicles: ["brannoch-tarn"],
    system: "surround-view",
    after: [
      "mirror-touched",
      "door-touched",
      "bumper-touched",
      "grille-touched",
      "tailgate-touched",
      "camera-touched",
      "camera-replaced",
      "collision-near",
      "ride-height",
      "suspension",
      "unit-replaced",
      "unit-programmed",
      "code-stored",
      "complaint",
    ],
  },
  reason:
    "The picture from above is joined from four cameras; after this work they no longer agree on where the ground is.",
  method: "static",
  setups: [
    {
      id: "mats",
      name: "mats on both sides",
      targets: [mat("left", "HQ-M1"), mat("right", "HQ-M3")],
      relations: [
        { id: "apart", kind: "spacing", of: MATS, minMm: 2950, maxMm: 3050 },
        { id: "parallel", kind: "parallel", of: MATS, toleranceDeg: 0.35 },
        { id: "even", kind: "equal-distance", of: MATS, toleranceMm: 20 },
      ],
    },
  ],
  cautions: [
    { say: "Park brake on and chocks in before anyone works at the wheels.", when: "wheels" },
    { say: "A floor laser shines at ankle height: do not look along its line.", when: "laser" },
    { say: "A mat slides underfoot: walk round it, not over it.", when: "start" },
  ],
  ready: [
    maintainer(12.4, 20),
    pressures("A soft tyre lowers its corner, and with it a camera.", 15),
    {
      id: "lenses",
      ask: "Lenses of all four cameras clean and dry",
      why: "A drop on a lens is a missing mark.",
    },
    {
      id: "shut",
      ask: "Doors, bonnet and tailgate shut, mirrors folded out",
      why: "Two of the cameras sit in the mirrors.",
    },
  ],
  run: [
    {
      id: "ign-on",
      kind: "ignition",
      say: "Ignition on. Do not start the engine.",
      to: "on",
      waitSeconds: 3,
      caution: "Hands away from the fans: they may start without warning.",
    },
    { id: "clear", kind: "prompt", say: "Nobody and nothing stands on the mats or between them." },
    {
      id: "learn",
      kind: "routine",
      say: "Let the cameras look at the mats. Nobody walks through their view.",
      routine: "surround-view-static",
      minQuality: 70,
    },
  ],
  prove: [
    {
      id: "view-rescan",
      ask: "Codes read again: none from the surround view",
      why: "A code that returns says the fault is still there.",
      measure: { kind: "rescan" },
    },
    {
      id: "seams",
      ask: "Floor lines run through the seams of the picture unbroken",
      why: "A step at a seam is a camera that looks elsewhere, or a mat that lay elsewhere.",
      measure: { kind: "seams", limitMm: 25 },
    },
  ],
};

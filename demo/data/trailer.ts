import type { Sheet } from "@/core/sheet";
import { across } from "./around";
import { maintainer } from "./checks";

/** The made-up sheet of a trailer's camera: it looks along its own trailer. Every figure is invented. */
export const TRAILER: Sheet = {
  format: "iridel.sheet/2",
  id: "wander-trailer",
  version: 1,
  status: "checked",
  title: "Wander, trailer camera, coupled and in line",
  source: {
    name: "Shop workbook, Hollin Quay, cameras behind",
    date: "2026-10-12",
    enteredBy: "Ines Tarbet",
    checkedBy: "Mara Quill",
    checkedOn: "2026-10-14",
  },
  appliesTo: {
    vehicles: ["skarle-wander"],
    system: "trailer-camera",
    after: [
      "camera-touched",
      "camera-replaced",
      "collision-near",
      "complaint",
      "code-stored",
      "unit-replaced",
      "unit-programmed",
    ],
  },
  reason:
    "The picture behind is drawn along the trailer; a camera that was moved draws it beside where it is.",
  method: "static",
  setups: [],
  cautions: [
    { say: "Chocks under the trailer before anyone goes between the two.", when: "wheels" },
    {
      say: "Nobody stands between vehicle and trailer, or behind it, while it is pulled.",
      when: "start",
    },
  ],
  ready: [
    maintainer(12.4, 20),
    {
      id: "plug",
      ask: "Trailer coupled, plug home, jockey wheel up, camera lens clean",
      why: "What is not plugged in is not there for the unit.",
    },
    {
      id: "in-line",
      ask: "Tow vehicle and trailer in line",
      why: "The unit takes the trailer for straight behind: an angle is learned as a crooked camera.",
      measure: { kind: "articulation", limitDeg: 0.5, roomMm: 8000 },
    },
  ],
  run: [
    {
      id: "ign-on",
      kind: "ignition",
      say: "Ignition on. Do not start the engine.",
      to: "on",
      waitSeconds: 3,
    },
    {
      id: "height",
      kind: "input",
      say: "Type the height of the trailer’s camera above the floor.",
      name: "Height of the trailer’s camera",
      minMm: 900,
      maxMm: 3200,
    },
    {
      id: "length",
      kind: "input",
      say: "Type the length of the trailer, hitch to its end.",
      name: "Length of the trailer",
      minMm: 2000,
      maxMm: 9000,
      takes: "trailer-length",
    },
    {
      id: "learn",
      kind: "routine",
      say: "Let the camera look along the trailer. Nobody walks behind it.",
      routine: "trailer-camera-static",
      minQuality: 70,
    },
  ],
  prove: [
    {
      id: "trailer-rescan",
      ask: "Codes read again: none from the trailer camera",
      why: "A code that returns says the fault is still there.",
      measure: { kind: "rescan" },
    },
    {
      id: "end-line",
      ask: "The line at the trailer’s end lies on its end on the display",
      why: "A line that lies short or long is a length that was typed wrong.",
    },
  ],
};

/** The same with a mat behind the trailer: its camera takes its height and its aim from that. */
export const TRAILER_MAT: Sheet = {
  ...TRAILER,
  id: "motto-trailer",
  title: "Motto, trailer camera, mat behind the trailer",
  appliesTo: { ...TRAILER.appliesTo, vehicles: ["ardvale-motto"] },
  setups: [
    {
      id: "behind",
      name: "mat behind the trailer",
      targets: [
        {
          ...across(
            "mat-behind",
            "mat behind the trailer",
            "behind",
            { code: "HQ-M8", widthMm: 2400, lengthMm: 1200, aheadMm: 0 },
            -3900,
          ),
          frame: "trailer",
        },
      ],
    },
  ],
  ready: [
    ...TRAILER.ready,
    {
      id: "flat",
      ask: "Mat flat, no edge curled, floor dry and dull under it",
      why: "A crease moves a mark as surely as a pull; a wet floor shows it twice.",
    },
  ],
  run: TRAILER.run.map((s): Sheet["run"][number] =>
    s.id === "learn"
      ? { ...s, say: "Let the camera look at the mat. Nobody walks behind it." }
      : s.id === "height" && s.kind === "input"
        ? { ...s, takes: "trailer-camera-height" }
        : s,
  ),
};

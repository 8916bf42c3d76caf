import type { SchoolId } from "./schools";

/** What each way of setting out is, in one sentence, and what to mind of it: told where one chooses. */
export const SCHOOL_WORDS: Record<SchoolId, { say: string; note?: string }> = {
  tapes: {
    say: "Tapes from the front hubs to both ends of the beam, with the two diagonals.",
  },
  "tapes-rear": {
    say: "The front badge is hidden from the board’s laser: a line laser behind the car runs over both badges to the board.",
    note: "Set it high enough to reach the front emblem over the roof; line it up there, and do not touch it again.",
  },
  "floor-box": {
    say: "Badges plumbed to the floor, a line through both marks, and a box of marks squared back to it.",
    note: "A bonnet of aluminium or plastic holds no magnet: hang the plumb line from a suction cup. A splitter before the badge's mark: walk it from the rear.",
  },
  "floor-box-rear": {
    say: "The front mark is blocked: the line goes through the marks of both left hubs instead of the badges.",
    note: "Drop both left hubs with the bracket, rear one first. A mirror on the floor lets one see the far mark.",
  },
  "wheel-panels": {
    say: "Panels on both rear wheels and one front hub; rangefinders on the beam read the distances, a laser the line.",
    note: "Equal ranges to the rear panels mean square to the rear axle, not to the thrust line.",
  },
  "wheel-lasers": {
    say: "Lasers on the rear wheels shine along the car onto scales on the beam; a tape gives the distance.",
  },
  "beam-lasers": {
    say: "A laser at each end of the beam shines along the car onto scales at its wheels; mirrors on the rear wheels send light back.",
    note: "Keep eyes out of the beams and of what the mirrors throw back. A tape gives the distance.",
  },
  rig: {
    say: "The rig sees a target on each wheel and says where it stands, many times a second.",
    note: "Roll the car half a wheel turn and back: the rig then knows where it really drives.",
  },
  walls: {
    say: "From the hubs to the wall beside them, from both ends of the beam to the wall behind the board and beside it; two tapes give the distance, a laser the line.",
    note: "Measure to the bare wall: skirting, cables and posters stand off it. A wall is only as good as it was drawn.",
  },
  about: {
    say: "Tapes from the hubs the board looks at to both ends of the beam, with the two diagonals, and its laser.",
  },
  "mat-tapes": {
    say: "From the hubs of its side square out to the inner edge and to the cross line, then from mat to mat.",
  },
  "mat-laser": {
    say: "A laser line over hub marks, past the cross line and the inner edge; tapes from mat to mat.",
    note: "Drop the hubs to the floor with the plumb line first; set the laser over both marks.",
  },
  "mark-laser": {
    say: "A laser line over the marks of two hubs, on past the floor mark: out from it, along it, and the diagonal as a check.",
    note: "Drop both hubs to the floor first. What the front wheel's mark is off swings the line: look at it twice.",
  },
  "mark-cord": {
    say: "A cord over the marks of two hubs, on past the floor mark: out from it, along it, and the diagonal as a check.",
    note: "A slack cord drifts in any draught: stretch it hard, and close above the floor.",
  },
  free: {
    say: "Every reading the kit can take, in any order.",
  },
};

/** Kinds of instruments as what a kit lacks. */
export const LACKED_WORDS: Record<string, string> = {
  tape: "a tape",
  laser: "a board laser",
  plumb: "plumb and line",
  range: "rangefinders",
  "wheel-laser": "wheel lasers",
  "beam-laser": "beam lasers",
  mirror: "wheel mirrors",
  "floor-laser": "a floor laser",
  rig: "a camera rig",
};

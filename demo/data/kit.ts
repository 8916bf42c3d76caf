import type { Board, ShopTool } from "@/core/kit";
import type { Instrument, Stand } from "@/core/setout";
import { degToRad } from "@/core/units";

/** The shop's stands, instruments and boards. Every dimension is invented. */
export const STANDS: Stand[] = [
  {
    id: "S-1",
    name: "Stand 1, rear pivot",
    beamHalfMm: 1150,
    hookHeightMm: 330,
    joints: [
      { kind: "yaw", xMm: -180, yMm: 0, limitRad: degToRad(6), playMm: 2 },
      { kind: "slide", axis: "cross", limitMm: 90, playMm: 1.5 },
      { kind: "slide", axis: "fore-aft", limitMm: 120 },
    ],
    boardXMm: 240,
    boardYMm: 0,
    crank: { minMm: 700, maxMm: 1650, mmPerTurn: 6 },
    scaleOffsetMm: 215,
    beamBackMm: 64,
    laserUpMm: -140,
    feet: [
      { xMm: -420, yMm: 0 },
      { xMm: 360, yMm: 410 },
      { xMm: 360, yMm: -410 },
    ],
    footMmPerTurn: 1.5,
    lastActs: ["locked", "hung"],
  },
  {
    id: "S-2",
    name: "Stand 2, turns about the board",
    beamHalfMm: 1000,
    hookHeightMm: 300,
    joints: [
      { kind: "slide", axis: "fore-aft", limitMm: 150 },
      { kind: "slide", axis: "cross", limitMm: 100 },
      { kind: "yaw", xMm: 60, yMm: 0, limitRad: degToRad(5) },
    ],
    boardXMm: 0,
    boardYMm: 0,
    crank: { minMm: 800, maxMm: 1900, mmPerTurn: 5 },
    scaleOffsetMm: 410,
    feet: [
      { xMm: -380, yMm: 420 },
      { xMm: -380, yMm: -420 },
      { xMm: 400, yMm: 420 },
      { xMm: 400, yMm: -420 },
    ],
    footMmPerTurn: 2,
    laserOn: "hook",
    lastActs: ["locked", "laser-off", "hung", "tethered"],
  },
  {
    id: "S-3",
    name: "Van stand, castors only",
    beamHalfMm: 900,
    hookHeightMm: 310,
    joints: [],
    boardXMm: 150,
    boardYMm: 0,
    crank: { minMm: 600, maxMm: 1400, mmPerTurn: 8, playMm: 3 },
    scaleOffsetMm: 120,
    boosters: [{ id: "B-3", addsMm: 250 }],
    feet: [
      { xMm: -300, yMm: 0 },
      { xMm: 300, yMm: 350 },
      { xMm: 300, yMm: -350 },
    ],
    footMmPerTurn: 1.5,
    lastActs: ["locked", "feet-down", "hung"],
  },
  {
    id: "S-4",
    name: "Reflector stand",
    beamHalfMm: 320,
    hookHeightMm: 240,
    joints: [{ kind: "yaw", xMm: 0, yMm: 0, limitRad: degToRad(20) }],
    boardXMm: 0,
    boardYMm: 0,
    crank: { minMm: 250, maxMm: 750, mmPerTurn: 4 },
    scaleOffsetMm: 70,
    feet: [
      { xMm: -260, yMm: 0 },
      { xMm: 200, yMm: 240 },
      { xMm: 200, yMm: -240 },
    ],
    footMmPerTurn: 1.25,
  },
];

export const INSTRUMENTS: Instrument[] = [
  { id: "T-3", name: "Steel tape 3", kind: "tape", sigmaMm: 1.0, sigmaMmPerM: 0.25, sigmaRad: 0 },
  { id: "L-1", name: "Board laser 1", kind: "laser", sigmaMm: 1.0, sigmaMmPerM: 0.2, sigmaRad: 0 },
  { id: "R-2", name: "Floor rule 2", kind: "rule", sigmaMm: 0.8, sigmaMmPerM: 0.2, sigmaRad: 0 },
  { id: "C-1", name: "Stand scale", kind: "scale", sigmaMm: 1.5, sigmaMmPerM: 0, sigmaRad: 0 },
  {
    id: "I-1",
    name: "Inclinometer 1",
    kind: "inclinometer",
    sigmaMm: 0,
    sigmaMmPerM: 0,
    sigmaRad: degToRad(0.05),
  },
  {
    id: "V-1",
    name: "Machinist’s level 1",
    kind: "bubble",
    sigmaMm: 0,
    sigmaMmPerM: 0,
    sigmaRad: degToRad(0.06),
    divisionRad: degToRad(0.25),
  },
  {
    id: "P-1",
    name: "Floor marks, plumb and line",
    kind: "plumb",
    sigmaMm: 1.3,
    sigmaMmPerM: 0.25,
    sigmaRad: 0,
  },
  {
    id: "G-1",
    name: "Rangefinders 1, a pair",
    kind: "range",
    sigmaMm: 1.0,
    sigmaMmPerM: 0.1,
    sigmaRad: 0,
  },
  {
    id: "W-1",
    name: "Wheel lasers 1, a pair",
    kind: "wheel-laser",
    sigmaMm: 0.8,
    sigmaMmPerM: 0.1,
    sigmaRad: degToRad(0.03),
  },
  { id: "K-1", name: "Camera rig 1", kind: "rig", sigmaMm: 0.9, sigmaMmPerM: 0.25, sigmaRad: 0 },
  {
    id: "F-1",
    name: "Floor laser 1",
    kind: "floor-laser",
    sigmaMm: 1.2,
    sigmaMmPerM: 0.2,
    sigmaRad: 0,
  },
];

/** The shop at the head of its reports. */
export const LETTERHEAD = {
  name: "Hollin Quay Glass and Cameras",
  address: "Slipway 3, Hollin Quay\nTelephone 0000 4471",
};

export const PEOPLE = [
  { id: "mara", name: "Mara Quill", initials: "MQ", role: "lead", pin: "270418" },
  { id: "ines", name: "Ines Tarbet", initials: "IT", role: "technician", pin: "481526" },
  { id: "oskar", name: "Oskar Veld", initials: "OV", role: "technician", pin: "635172" },
  { id: "ruan", name: "Ruan Petch", initials: "RP", role: "viewer", pin: "904413" },
] as const;

/**
 * When each instrument was last checked, in days before the demo is made, and how long a check is
 * good for.
 */
export const LAST_CHECKS: Record<string, { daysAgo: number; everyDays: number }> = {
  "T-3": { daysAgo: 40, everyDays: 180 },
  "L-1": { daysAgo: 12, everyDays: 90 },
  "R-2": { daysAgo: 61, everyDays: 180 },
  "C-1": { daysAgo: 5, everyDays: 90 },
  "V-1": { daysAgo: 44, everyDays: 365 },
  "I-1": { daysAgo: 20, everyDays: 365 },
  "P-1": { daysAgo: 33, everyDays: 180 },
  "G-1": { daysAgo: 16, everyDays: 90 },
  "W-1": { daysAgo: 101, everyDays: 90 },
  "K-1": { daysAgo: 8, everyDays: 30 },
  "F-1": { daysAgo: 26, everyDays: 90 },
};

export const BOARDS: Board[] = [
  {
    code: "HQ-14",
    name: "Forward camera board, dots",
    side: "either",
    version: 2,
    widthMm: 1100,
    condition: "good",
  },
  {
    code: "HQ-17",
    name: "Forward camera board, bars",
    side: "either",
    version: 1,
    widthMm: 1250,
    condition: "good",
  },
  {
    code: "HQ-22",
    name: "Forward camera board, large",
    side: "either",
    version: 1,
    widthMm: 1400,
    condition: "worn",
  },
  {
    code: "HQ-R1",
    name: "Corner reflector, front radar",
    side: "either",
    version: 1,
    widthMm: 250,
    condition: "good",
  },
  { code: "HQ-B1", name: "Beam board", side: "left", version: 1, widthMm: 640, condition: "good" },
  { code: "HQ-B3", name: "Beam board", side: "right", version: 1, widthMm: 640, condition: "good" },
  { code: "HQ-M1", name: "Floor mat", side: "left", version: 1, widthMm: 900, condition: "good" },
  { code: "HQ-M3", name: "Floor mat", side: "right", version: 1, widthMm: 900, condition: "good" },
  {
    code: "HQ-M2",
    name: "Floor mat",
    side: "right",
    version: 1,
    widthMm: 900,
    condition: "out of use",
  },
  {
    code: "HQ-M5",
    name: "Front mat",
    side: "either",
    version: 1,
    widthMm: 3000,
    condition: "good",
  },
  {
    code: "HQ-M6",
    name: "Rear mat, two pieces",
    side: "left",
    version: 1,
    widthMm: 1500,
    condition: "good",
  },
  {
    code: "HQ-M7",
    name: "Rear mat, two pieces",
    side: "right",
    version: 1,
    widthMm: 1500,
    condition: "good",
  },
  {
    code: "HQ-M8",
    lentTo: "Brae Body Works",
    name: "Rear camera mat",
    side: "either",
    version: 1,
    widthMm: 2400,
    condition: "good",
  },
];

/** Scan tools, with their days counted from the day the demo is made. */
export const toolsOn = (today: string): ShopTool[] => {
  const day = (n: number): string =>
    new Date(Date.parse(today) + n * 86_400_000).toISOString().slice(0, 10);
  return [
    {
      id: "D-1",
      name: "Simulated scan tool",
      serial: "SIM-0412",
      software: "0.1",
      softwareOn: day(-34),
      updateEveryDays: 60,
      paidUntil: day(212),
      gatewayUntil: day(9),
    },
    {
      id: "D-2",
      name: "Code reader, in the drawer",
      serial: "HQ-CR-7",
      software: "4.2",
      softwareOn: day(-171),
      updateEveryDays: 120,
      paidUntil: null,
      gatewayUntil: null,
    },
    {
      id: "D-3",
      name: "Scan tool of the van",
      serial: "HQ-SCAN-V",
      software: "0.1",
      softwareOn: day(-20),
      updateEveryDays: 60,
      paidUntil: day(160),
      gatewayUntil: null,
    },
  ];
};

import { CONSENT_WORDS } from "@/core/job";
import type { Person } from "@/server/auth/session";
import { findJob } from "@/server/jobs/store";
import { keepPhoto } from "@/server/photos/store";
import { technician } from "../technician";
import type { PEOPLE } from "./kit";
import { drawnPhoto } from "./photos";
import { madeUpVin } from "./vehicles";

type Made = { id: string; number: number; what: string };

const HOUR = 3600_000;

/**
 * The demo's jobs, awkward ones included, worked by made-up technicians in the simulated bay: every
 * reading, residual, verdict and refusal on them is computed, none is written by hand.
 */
export async function makeJobs(everyone: typeof PEOPLE, now = Date.now()): Promise<Made[]> {
  const person = (id: string): Person => {
    const { pin: _, ...p } = everyone.find((x) => x.id === id)!;
    return p;
  };
  const hoursAgo = (h: number): string => new Date(now - h * HOUR).toISOString();
  const made: Made[] = [];
  const note = (id: string, what: string): void =>
    void made.push({ id, number: findJob(id)!.number, what });

  const intake = (vehicle: "lisse" | "harrow" | "tarn" | "sandling", more: object): object => ({
    vinReason: null,
    vehicleId: {
      lisse: "norvane-lisse",
      harrow: "tesmar-harrow",
      tarn: "brannoch-tarn",
      sandling: "ardvale-sandling",
    }[vehicle],
    happenings: [{ event: "glass-out", place: "windshield" }],
    sheetId: `${vehicle}-forward`,
    sheetVersion: { lisse: 2, harrow: 1, tarn: 3, sandling: 1 }[vehicle],
    standId: { lisse: "S-1", harrow: "S-3", tarn: "S-1", sandling: "S-2" }[vehicle],
    rearToeDeg: null,
    answers: {},
    complaint: "",
    ...more,
  });
  const settled = { kind: "settle" } as const;
  /** Where a vehicle stands in a bay, nose in. */
  const inBay = (bay: "bay-1" | "bay-2") =>
    ({
      kind: "parked",
      bay,
      name: bay === "bay-1" ? "Bay 1" : "Bay 2",
      xMm: bay === "bay-1" ? 2800 : 2000,
      yMm: bay === "bay-1" ? 3150 : 2600,
      headingRad: 0,
    }) as const;

  // A plain one, done yesterday.
  const oskar = technician(person("oskar"), hoursAgo(27));
  oskar.open(
    intake("lisse", {
      vin: madeUpVin("0NVLS2DA7R100417"),
      customer: "Elin Marsh",
      plate: "HQ 41 ELM",
      order: "4471",
    }),
    "demo-a",
  );
  await oskar.check("ready");
  oskar.follow((j) => j.next.kind === "settle");
  oskar.write(settled);
  await oskar.run();
  await oskar.check("prove");
  oskar.write({ kind: "hand-over" });
  note(oskar.jobId, "low-nosed coupe, handed over");

  // The thrust line is off; scanned clean and owed all the same.
  const thrust = technician(person("ines"), hoursAgo(6));
  thrust.open(
    intake("tarn", {
      vin: madeUpVin("0BRTRN5B2T220903"),
      happenings: [
        { event: "glass-out", place: "windshield" },
        { event: "alignment", place: "chassis" },
      ],
      customer: "Tolland & Daughters, Bakers",
      plate: "HQ 09 TAL",
      order: "4480",
      rearToeDeg: { left: 0.02, right: 0.24 },
    }),
    "demo-b",
  );
  thrust.write({
    kind: "walk",
    odometerKm: 84_210,
    odometerTyped: "084 210",
    lamps: ["camera"],
    settings: { "lane-keeping": "on, late", signs: "on", "high-beam": "off" },
  });
  for (const scene of ["vehicle", "odometer", "glass"] as const) {
    const kept = await keepPhoto(await drawnPhoto(scene, hoursAgo(6.1)), person("ines"));
    thrust.write({ kind: "photo", photo: kept.photo, subject: scene, takenAt: kept.takenAt }, 15);
  }
  thrust.write({
    kind: "glass",
    part: "BR-W-7731",
    fitter: "Tolland Glass, van 2",
    partReason: null,
    depths: {
      "top-left": 2.1,
      top: 2.0,
      "top-right": 2.2,
      "bottom-left": 1.9,
      bottom: 2.0,
      "bottom-right": 2.1,
    },
    mount: { bracket: true, camera: true, film: true },
  });
  thrust.write({
    kind: "consent",
    name: "P. Tolland",
    words: CONSENT_WORDS,
    strokes: [
      [
        [60, 200],
        [110, 80],
        [150, 210],
        [200, 90],
        [260, 190],
      ],
      [
        [300, 150],
        [420, 130],
        [560, 170],
        [760, 120],
      ],
    ],
  });
  thrust.write({
    kind: "owed-done",
    line: "steering-angle/learn",
    note: "Zero taught on the alignment rack, printout kept",
  });
  await thrust.check("ready");
  thrust.follow((j) => j.next.kind === "settle");
  thrust.write(settled);
  await thrust.run();
  await thrust.check("prove", {
    "road-check": "Marked road closed by snow; customer told to have lane warning checked",
  });
  note(thrust.jobId, "estate with its thrust line off, ready to hand over");

  // Somebody walked into the stand after it was set: the vehicle says no.
  const bumped = technician(person("oskar"), hoursAgo(4));
  bumped.open(
    intake("lisse", {
      vin: madeUpVin("0NVLS2DB9R100523"),
      happenings: [{ event: "camera-replaced", place: "windshield" }],
      customer: "Jory Penhale",
      plate: "HQ 77 JOR",
      order: "4486",
    }),
    "demo-c",
  );
  await bumped.check("ready");
  bumped.follow((j) => j.next.kind === "settle");
  bumped.write(settled);
  bumped.write({ kind: "bump" });
  await bumped.run();
  note(bumped.jobId, "refused by the vehicle: the stand was knocked unnoticed");

  // Interrupted half way: a van on the booster stand.
  const van = technician(person("ines"), hoursAgo(3));
  van.open(
    intake("harrow", {
      vin: madeUpVin("0TMHRWLC4T310077"),
      customer: "Skerry Fish Company, Harbour Road",
      plate: "HQ 30 SKF",
      order: "4489",
      promisedAt: hoursAgo(0.5),
    }),
    "demo-d",
  );
  await van.check("ready", {
    load: "Fixed racking stays in; the sheet’s heights were taken with it",
  });
  van.follow((j) => j.next.kind !== "move");
  for (const slot of ["tape-fl-l", "tape-fr-r", "laser-badge"]) van.read(slot);
  note(van.jobId, "van, interrupted half way");

  // A tape misread by 20 mm.
  const slip = technician(person("ines"), hoursAgo(1.4));
  slip.open(
    intake("lisse", {
      vin: madeUpVin("0NVLS2DD1R100588"),
      customer: "Wren Aldous",
      plate: "HQ 12 WRN",
      order: "4492",
      promisedAt: hoursAgo(-2),
    }),
    "demo-e",
  );
  await slip.check("ready");
  for (const slot of ["tape-fl-l", "tape-fr-r", "tape-fl-r"]) slip.read(slot);
  slip.read("tape-fr-l", 20);
  for (const slot of ["laser-badge", "height-rule"]) slip.read(slot);
  note(slip.jobId, "a tape reading 20 mm too long");

  // Known well enough, and off: the board has to be moved. Left-hand drive.
  const move = technician(person("oskar"), hoursAgo(0.9));
  move.open(
    intake("sandling", {
      vin: madeUpVin("0AVSND3E6S410031"),
      customer: "Marrow Isle Car Hire",
      plate: "HQ 55 HIR",
      order: "4493",
    }),
    "demo-f",
  );
  move.write(inBay("bay-2"), 120);
  await move.check("ready");
  move.follow((j) => j.next.kind === "move" && !["zero", "crank"].includes(j.next.move.kind));
  note(move.jobId, "left-hand drive, board to be moved");

  // Proved in place, not yet printed.
  const set = technician(person("mara"), hoursAgo(0.6));
  set.open(
    intake("lisse", {
      vin: madeUpVin("0NVLS2DF3R100640"),
      happenings: [{ event: "bracket-touched", place: "windshield" }],
      customer: "Bettina Oxenham-Strand",
      plate: "HQ 63 BET",
      order: "4495",
    }),
    "demo-g",
  );
  await set.check("ready");
  set.follow((j) => j.next.kind === "settle");
  note(set.jobId, "board in place, to be settled");

  // Three calibrations in one visit: the camera has learned, one mat lies, the other is to be drawn.
  const three = technician(person("oskar"), hoursAgo(2.2));
  three.open(
    {
      vin: madeUpVin("0BRTRN5C4T220931"),
      vinReason: null,
      vehicleId: "brannoch-tarn",
      happenings: [
        { event: "glass-out", place: "windshield" },
        { event: "mirror-touched", place: "left" },
        { event: "bumper-touched", place: "rear" },
      ],
      sheets: [
        { sheetId: "tarn-forward", sheetVersion: 3, standId: "S-1" },
        { sheetId: "tarn-surround", sheetVersion: 1, standId: null },
      ],
      rearToeDeg: { left: 0.11, right: 0.13 },
      answers: { trim: "high" },
      complaint: "",
      customer: "Aldous Tern, Ferry House",
      plate: "HQ 18 TRN",
      order: "4494",
      promisedAt: hoursAgo(-3),
    },
    "demo-i",
  );
  three.write({
    kind: "owed-done",
    line: "corner-radar/static",
    note: "Aimed by the body shop with its own reflector, printout kept",
  });
  await three.check("ready");
  three.follow((j) => j.next.kind === "settle");
  three.write(settled);
  await three.run();
  three.turnTo("tarn-surround", "mat-left");
  three.follow((j) => j.next.kind === "settle");
  three.write(settled);
  three.turnTo("tarn-surround", "mat-right");
  three.follow((j) => j.next.kind === "move");
  note(three.jobId, "three calibrations in one visit, one mat to be drawn");

  // The picture from above is joined, and breaks at a seam: somebody leaned on a camera since.
  const seams = technician(person("ines"), hoursAgo(1.6));
  seams.open(
    {
      vin: madeUpVin("0BRTRN5C4T220944"),
      vinReason: null,
      vehicleId: "brannoch-tarn",
      happenings: [{ event: "mirror-touched", place: "right" }],
      sheets: [{ sheetId: "tarn-surround", sheetVersion: 1, standId: null }],
      rearToeDeg: null,
      answers: { trim: "high" },
      complaint: "Picture from above has a crack in it",
      customer: "Quay Road Taxis",
      plate: "HQ 26 SEA",
      order: "4496",
    },
    "demo-seam-s",
  );
  await seams.check("ready");
  const lay = (side: "left" | "right"): void => {
    seams.turnTo("tarn-surround", `mat-${side}`);
    seams.follow((j) => j.next.kind === "settle");
    seams.write(settled);
  };
  lay("left");
  lay("right");
  await seams.run();
  seams.measure("prove", "seams");
  note(seams.jobId, "surround view joined, a step at a seam");

  // A camper with its trailer, as it was parked.
  const camper = technician(person("mara"), hoursAgo(0.5));
  camper.open(
    {
      vin: madeUpVin("0SKWNDR4A7R30058"),
      vinReason: null,
      vehicleId: "skarle-wander",
      happenings: [{ event: "camera-replaced", place: "trailer" }],
      sheets: [{ sheetId: "wander-trailer", sheetVersion: 1, standId: null }],
      rearToeDeg: null,
      answers: { trailer: "yes" },
      complaint: "",
      customer: "Marram Holidays",
      plate: "HQ 90 MAR",
      order: "4498",
    },
    "demo-camper",
  );
  camper.measure("ready", "in-line");
  note(camper.jobId, "camper and trailer, not in line yet");

  // A truck whose left arm was off: both marks drawn and proved, the cameras still to be aimed.
  const truck = technician(person("oskar"), hoursAgo(1.1));
  truck.open(
    {
      vin: madeUpVin("0TMHAU2A7R400126"),
      vinReason: null,
      vehicleId: "tesmar-hauler",
      happenings: [{ event: "mirror-touched", place: "left" }],
      sheets: [{ sheetId: "hauler-mirrors", sheetVersion: 1, standId: null }],
      rearToeDeg: null,
      answers: {},
      complaint: "Left display shows too much sky",
      customer: "Wharf Side Timber",
      plate: "HQ 44 ARM",
      order: "4499",
    },
    "demo-arms",
  );
  await truck.check("ready");
  for (const side of ["left", "right"]) {
    truck.turnTo("hauler-mirrors", `mark-${side}`);
    truck.follow((j) => j.next.kind === "settle");
    truck.settle();
  }
  truck.turnTo("hauler-mirrors");
  await truck.run("aim-left");
  note(truck.jobId, "mirror cameras, the left one being aimed");

  // A grille was off: the reflector stands before the radar, mats wait for the surround view.
  const fell = technician(person("ines"), hoursAgo(0.8));
  fell.open(
    {
      vin: madeUpVin("0BRFEL4C4T310086"),
      vinReason: null,
      vehicleId: "brannoch-fell",
      happenings: [{ event: "grille-touched", place: "front" }],
      sheets: [
        { sheetId: "fell-radar", sheetVersion: 1, standId: "S-4" },
        { sheetId: "fell-surround", sheetVersion: 1, standId: null },
      ],
      rearToeDeg: null,
      answers: { cruise: "yes" },
      complaint: "",
      customer: "Orla Fenn",
      plate: "HQ 60 FEL",
      order: "4500",
    },
    "demo-fell",
  );
  fell.write(inBay("bay-1"), 120);
  await fell.check("ready");
  fell.turnTo("fell-radar", "reflector");
  fell.follow((j) => j.next.kind === "settle");
  fell.settle();
  note(fell.jobId, "front radar’s reflector set");

  // Learned before its board; what is left is the road.
  const road = technician(person("ines"), hoursAgo(1.8));
  road.open(
    intake("harrow", {
      vin: madeUpVin("0TMHRWLG8T310133"),
      customer: "Gannet Glen Bakery",
      plate: "HQ 37 GLN",
      order: "4496",
      standId: "S-2",
    }),
    "demo-road",
  );
  await road.check("ready");
  road.follow((j) => j.next.kind === "settle");
  road.settle();
  await road.run();
  note(road.jobId, "learned before its board, to be driven");

  // Just taken in; its VIN does not add up and was kept with a reason.
  const fresh = technician(person("mara"), hoursAgo(0.2));
  const vin = madeUpVin("0TMHRWLG8T310112");
  fresh.open(
    intake("harrow", {
      vin: vin.slice(0, 8) + (vin[8] === "4" ? "5" : "4") + vin.slice(9),
      vinReason: "Stamped so on the frame and on the plate; maker asked",
      customer: "Lowan Coast Rescue",
      plate: "HQ 02 LCR",
      order: "4497",
    }),
    "demo-h",
  );
  note(fresh.jobId, "just taken in");
  return made;
}

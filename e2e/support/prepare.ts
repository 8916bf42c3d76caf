import { degToRad } from "@/core/units";
import { PEOPLE } from "@/demo/data/kit";
import { madeUpVin } from "@/demo/data/vehicles";
import { technician } from "@/demo/technician";
import type { Prepared } from "./prepared";

/** Works a job to its proof, as the demo's people do, in the shop's own database; prints its id. */
const {
  seed,
  sheetId,
  sheetVersion,
  turnDeg,
  unanswered = [],
} = JSON.parse(process.argv[2]!) as Prepared;
const { pin: _, ...ines } = PEOPLE.find((p) => p.id === "ines")!;
const hands = technician(ines, new Date(Date.now() - 3_600_000).toISOString());
hands.open(
  {
    vin: madeUpVin("0NVLS2DA7R100701"),
    vinReason: null,
    vehicleId: "norvane-lisse",
    happenings: [{ event: "glass-out", place: "windshield" }],
    sheetId,
    sheetVersion,
    standId: "S-1",
    rearToeDeg: null,
    answers: {},
    complaint: "",
    customer: `Prepared ${seed}`,
    plate: "",
    order: "",
  },
  seed,
);
await hands.check("ready", {}, unanswered);
hands.follow((j) => j.next.kind === "settle");
hands.settle();
if (turnDeg !== undefined) hands.turn(degToRad(turnDeg));
console.log(hands.jobId);

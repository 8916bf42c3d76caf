import { count, eq } from "drizzle-orm";
import { db } from "../db/client";
import { jobs, kitChecks, settings } from "../db/schema";
import { listBoards } from "../kit/store";
import { CLOCK_KEY } from "../shop/clock";
import {
  listCheckedInstruments,
  listPeople,
  listSheets,
  listStands,
  listVehicles,
  ruleBook,
} from "../shop/store";

/** One thing a shop needs before it can calibrate, and where it is done. */
export type FirstStep = {
  id: string;
  name: string;
  why: string;
  done: boolean;
  href: string;
  /** A file that shows what it looks like, or can be taken in as it is. */
  example: string | null;
};

/** What a new shop still lacks, in the order it is of use; null once it has had its first job. */
export function firstSteps(): FirstStep[] | null {
  if (db().select({ n: count() }).from(jobs).get()!.n > 0) return null;
  const boards = listBoards();
  const zeroed =
    db()
      .select({ id: kitChecks.itemId })
      .from(kitChecks)
      .all()
      .filter((c) => !c.id.includes("/")).length > 0;
  return [
    {
      id: "clock",
      name: "Set the shop’s clock",
      why: "Promised times, morning checks and reports are read off it.",
      done: db().select().from(settings).where(eq(settings.key, CLOCK_KEY)).get() !== undefined,
      href: "/settings",
      example: null,
    },
    {
      id: "rules",
      name: "Say what makes which calibration owed",
      why: "Without a rule book nothing is ever owed, whatever was done to the vehicle.",
      done: ruleBook().rules.length > 0,
      href: "/settings",
      example: "/examples/rule-book.json",
    },
    {
      id: "people",
      name: "Enter a second person",
      why: "Nobody checks their own figures: a second person signs what one has entered.",
      done: listPeople().length > 1,
      href: "/people",
      example: null,
    },
    {
      id: "kit",
      name: "Describe the kit",
      why: "A stand with its joints, the instruments with what they are known to, boards by their labels: the arithmetic counts on all three.",
      done: listStands().length > 0 && listCheckedInstruments().length > 0 && boards.length > 0,
      href: "/kit",
      example: "/examples/kit.json",
    },
    {
      id: "zero",
      name: "Check a piece of kit",
      why: "What nobody has checked is believed less; the stand is checked every morning.",
      done: zeroed,
      href: "/kit",
      example: null,
    },
    {
      id: "vehicle",
      name: "Enter a vehicle",
      why: "Hubs, badge, camera: the places everything is measured from.",
      done: listVehicles().length > 0,
      href: "/vehicles",
      example: "/examples/vehicle.json",
    },
    {
      id: "sheet",
      name: "Enter a sheet",
      why: "Where the maker wants the board, and how far off it may be.",
      done: listSheets().length > 0,
      href: "/sheets",
      example: "/examples/sheet.json",
    },
    {
      id: "job",
      name: "Take in the first vehicle",
      why: "From then on the bench leads.",
      done: false,
      href: "/take-in",
      example: null,
    },
  ];
}

import { itemOf, type EventBody } from "@/core/job";
import { moveWords, thingOf, touchName } from "@/core/setout";
import { useJob } from "../bench/job-store";

const NAMES: Record<
  Exclude<
    EventBody["kind"],
    "reading" | "touch" | "strike" | "move" | "check" | "put-right" | "measured"
  >,
  string
> = {
  "taken-in": "taken in",
  run: "a step of the routine",
  scan: "a scan",
  document: "a paper was kept",
  settled: "board set",
  school: "another way of setting out",
  "rear-toe": "rear toe",
  position: "board to another place",
  board: "board checked",
  bump: "the simulated bay was knocked",
  glass: "glass and mount",
  walk: "the vehicle as it came in",
  photo: "a photo",
  consent: "consent to a drive",
  "owed-decline": "a line declined",
  "owed-done": "a line done elsewhere",
  "owed-add": "a line added to what is owed",
  pause: "clock stopped",
  resume: "clock goes on",
  kept: "a stand that nobody touched",
  instrument: "another instrument in hand",
  "code-word": "a word on a code",
  "road-check": "a function tried on the road",
  "lamps-now": "the lamps now",
  parked: "where the vehicle stands",
  "drive-leave": "a drive that began",
  "drive-part": "a part of a drive",
  "drive-end": "a drive that ended",
  hold: "the vehicle held back",
  "hold-lifted": "a hold lifted",
  "sign-off": "a second person’s signature",
  "second-look": "figures compared with their source",
  "hand-over": "handed over",
  reopen: "opened again for a revision",
};

/** A line of the log in a few words, as its writer would say it. */
export function useLineWords(): (body: EventBody) => string {
  const { judged, ground, target } = useJob();
  const slot = (id: string): string => judged?.solution.slots.find((s) => s.id === id)?.name ?? id;
  const item = (id: string): string =>
    (itemOf(ground, "ready", id) ?? itemOf(ground, "prove", id))?.ask ?? id;
  return (b) => {
    switch (b.kind) {
      case "reading":
        return `${slot(b.slotId)}: ${b.typed}`;
      case "touch":
        return `touched: ${touchName(target?.kind ?? "board", b.touch)}`;
      case "strike":
        return `struck a line: ${b.reason}`;
      case "move":
        return moveWords(b.move, ground.vehicle, "mm", target ? thingOf(target) : undefined).say;
      case "check":
      case "put-right":
      case "measured":
        return item(b.itemId);
      default:
        return NAMES[b.kind];
    }
  };
}

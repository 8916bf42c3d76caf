import { turnsOf, type RouteLeg, type Turn } from "@/core/drive/route";
import { formatNumber } from "@/core/units";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

const TURNS: Record<Turn["turn"], string> = {
  leave: "Leave along",
  on: "On along",
  left: "Left into",
  right: "Right into",
  round: "Turn round, along",
};

const AT: Record<string, string> = {
  roundabout: ", at the roundabout",
  signals: ", at the lights",
};

/** The turns of a drive, for the screen and for paper. */
export function TurnSheet({
  open,
  onClose,
  title,
  legs,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  legs: readonly RouteLeg[];
}) {
  return (
    <Dialog open={open} onClose={onClose} title={title} wide>
      <ol className="flex flex-col">
        {turnsOf(legs).map((t, i) => (
          <li
            key={i}
            className="flex items-baseline justify-between gap-4 border-b border-dashed border-hairline py-2 text-lg"
          >
            <span>
              {TURNS[t.turn]} <b className="font-semibold">{t.name}</b>
              {AT[t.control] ?? ""}
            </span>
            <span className="figure">{formatNumber(t.metres / 1000, 1)} km</span>
          </li>
        ))}
      </ol>
      <Button className="mt-3" onClick={() => window.print()}>
        Print
      </Button>
    </Dialog>
  );
}

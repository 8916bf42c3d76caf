import { touchesOf, touchName, type TouchKind } from "@/core/setout";
import type { Target } from "@/core/sheet";
import { Dialog } from "../primitives/dialog";

/** What each puts in doubt, of a board on its stand. */
const DOUBTS: Partial<Record<TouchKind, string>> = {
  cranked: "Puts the height in doubt, and the place a little.",
  hung: "Puts the place, the height and the tilt a little in doubt.",
  knocked: "Puts everything at the stand in doubt.",
  "moved-car": "Puts every distance to the car in doubt.",
};

/** Touching spoils it: say what was touched, and the readings it puts in doubt are marked. */
export function TouchDialog({
  kind,
  open,
  onClose,
  onTouch,
}: {
  /** Of what kind of target. */
  kind: Target["kind"];
  open: boolean;
  onClose: () => void;
  onTouch: (touch: TouchKind) => void;
}) {
  return (
    <Dialog open={open} onClose={onClose} title="What was touched?">
      <div className="flex flex-col gap-2">
        {touchesOf(kind).map((touch) => (
          <button
            key={touch}
            type="button"
            onClick={() => {
              onTouch(touch);
              onClose();
            }}
            className="min-h-16 rounded-md border-2 border-hairline px-4 py-2 text-left hover:border-act"
          >
            <span className="block text-xl font-semibold">{touchName(kind, touch)}</span>
            <span className="text-base text-soft">
              {kind === "mat" && touch === "knocked"
                ? "Puts its place and its heading in doubt."
                : DOUBTS[touch]}
            </span>
          </button>
        ))}
      </div>
    </Dialog>
  );
}

import { TOUCHES, type TouchKind } from "@/core/setout";
import { Dialog } from "../primitives/dialog";

const DOUBTS: Record<TouchKind, string> = {
  cranked: "Puts the height in doubt, and the place a little.",
  hung: "Puts the place, the height and the tilt a little in doubt.",
  knocked: "Puts everything at the stand in doubt.",
  "moved-car": "Puts every distance to the car in doubt.",
};

/** Touching spoils it: say what was touched, and the readings it puts in doubt are marked. */
export function TouchDialog({
  open,
  onClose,
  onTouch,
}: {
  open: boolean;
  onClose: () => void;
  onTouch: (touch: TouchKind) => void;
}) {
  return (
    <Dialog open={open} onClose={onClose} title="What was touched?">
      <div className="flex flex-col gap-2">
        {(Object.keys(TOUCHES) as TouchKind[]).map((kind) => (
          <button
            key={kind}
            type="button"
            onClick={() => {
              onTouch(kind);
              onClose();
            }}
            className="min-h-16 rounded-md border-2 border-hairline px-4 py-2 text-left hover:border-act"
          >
            <span className="block text-xl font-semibold">{TOUCHES[kind].name}</span>
            <span className="text-base text-soft">{DOUBTS[kind]}</span>
          </button>
        ))}
      </div>
    </Dialog>
  );
}

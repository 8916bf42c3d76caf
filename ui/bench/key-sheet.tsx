"use client";

import { Dialog } from "../primitives/dialog";

const KEYS: [string, string][] = [
  ["1 – 8", "Stage (with Alt while a reading is being typed)"],
  ["Figures, Enter", "The armed reading"],
  ["T", "Touched something"],
  ["N", "Another reading"],
  ["W", "The way of setting out"],
  ["X", "The other target that lies there too"],
  ["K", "The next calibration of the job"],
  ["U", "Undo the last thing at the stand"],
  ["S", "Slip"],
  ["/", "Find a job or go to a page"],
  ["?", "These keys"],
  ["Escape", "Put a sheet away"],
];

export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Keys">
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2 text-lg">
        {KEYS.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="figure font-semibold">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-4 text-soft">
        A code scanner types fast and ends with Enter: such a burst is taken as a code, not as a
        measurement.
      </p>
    </Dialog>
  );
}

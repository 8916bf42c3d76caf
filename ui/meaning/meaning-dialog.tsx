"use client";

import type { Judged } from "@/core/setout";
import { useJob } from "../bench/job-store";
import { Dialog } from "../primitives/dialog";
import { GuideMeaning } from "./guide-meaning";
import { MirrorMeaning } from "./mirror-meaning";
import { RadarMeaning } from "./radar-meaning";

/** What an error of this target would mean to whoever drives, for all that is no board and no seam. */
export function MeaningDialog({
  open,
  onClose,
  judged,
}: {
  open: boolean;
  onClose: () => void;
  judged: Judged;
}) {
  const { ground } = useJob();
  const s = judged.solution;
  const system = ground.sheet.appliesTo.system;
  return (
    <Dialog open={open} onClose={onClose} title={TITLES[system] ?? "What it means"} wide>
      {open &&
        (system === "mirror-camera" ? (
          <MirrorMeaning s={s} sheet={ground.sheet} />
        ) : system === "front-radar" ? (
          <RadarMeaning s={s} />
        ) : (
          <GuideMeaning s={s} sheet={ground.sheet} />
        ))}
    </Dialog>
  );
}

const TITLES: Partial<Record<string, string>> = {
  "mirror-camera": "What it means in the mirror display",
  "front-radar": "What it means to the radar",
  "rear-camera": "What it means for the guide lines",
  "trailer-camera": "What it means for the guide lines",
  "side-camera": "What it means for the picture beside",
};

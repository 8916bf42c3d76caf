import dynamic from "next/dynamic";
import type { ComponentProps } from "react";
import { useJob } from "../bench/job-store";
import { RoadDialog } from "../road/road-dialog";

const SeamsDialog = dynamic(() => import("../surround/seams-dialog").then((m) => m.SeamsDialog));
const MeaningDialog = dynamic(() =>
  import("../meaning/meaning-dialog").then((m) => m.MeaningDialog),
);

/** What an error would mean: on the road for a board, at the seams of the picture, in another display. */
export function MeansDialog(props: ComponentProps<typeof RoadDialog>) {
  const { system } = useJob().ground.sheet.appliesTo;
  if (system === "forward-camera") return <RoadDialog {...props} />;
  if (system === "surround-view") return <SeamsDialog open={props.open} onClose={props.onClose} />;
  return <MeaningDialog {...props} />;
}

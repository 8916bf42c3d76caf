import dynamic from "next/dynamic";
import type { ComponentProps } from "react";
import { RoadDialog } from "../road/road-dialog";

const SeamsDialog = dynamic(() => import("../surround/seams-dialog").then((m) => m.SeamsDialog));

/** What an error would mean: on the road for a board, at the seams of the picture for a mat. */
export const MeansDialog = (props: ComponentProps<typeof RoadDialog>) =>
  props.judged.solution.plan.target.kind === "board" ? (
    <RoadDialog {...props} />
  ) : (
    <SeamsDialog open={props.open} onClose={props.onClose} />
  );

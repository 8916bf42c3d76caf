import { expose } from "comlink";
import { bestFit } from "@/core/space/fit";

// Tens of thousands of poses: beside the page, so that the page stays quick.
const space = { fit: bestFit };
export type SpaceWorker = typeof space;
expose(space);

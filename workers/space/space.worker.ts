import { expose } from "comlink";
import { roomIn } from "@/core/space/room";

// Tens of thousands of poses: beside the page, so that the page stays quick.
const space = { roomIn };
export type SpaceWorker = typeof space;
expose(space);

import { expose } from "comlink";
import { roomIn, roomWithout } from "@/core/space/room";

// Tens of thousands of poses: beside the page, so that the page stays quick.
const space = { roomIn, roomWithout };
export type SpaceWorker = typeof space;
expose(space);

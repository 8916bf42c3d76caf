import { expose } from "comlink";
import { roadOutcome } from "@/core/camera";

// Tens of thousands of learnings: beside the page, so that the page stays quick.
const road = { outcome: roadOutcome };
export type Road = typeof road;
expose(road);

import { expose } from "comlink";
import { placesFor } from "@/core/space/places";

// Tens of thousands of poses: beside the page, so that the page stays quick.
const space = { places: placesFor };
export type SpaceWorker = typeof space;
expose(space);

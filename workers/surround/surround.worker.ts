import { installFloorSlots } from "@/core/setout/floor-slots";
import { expose, transfer } from "comlink";
import { seamCauses, stepsAhead } from "@/core/job";
import { drawCabinView, type PictureArea } from "@/devices/vehicle/cabin-picture";
import type { CabinView } from "@/devices/vehicle/cabin-view";

installFloorSlots();

// Hundreds of thousands of pixels, hundreds of learnings: beside the page.
const surround = {
  picture: (view: CabinView, area: PictureArea) => {
    const pixels = drawCabinView(view, area);
    return transfer(pixels, [pixels.buffer]);
  },
  causes: seamCauses,
  stepsAhead,
};
export type SurroundWorker = typeof surround;
expose(surround);

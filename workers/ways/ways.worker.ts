import { installFloorSlots } from "@/core/setout/floor-slots";
import { expose } from "comlink";
import { schoolChances } from "@/core/setout";

installFloorSlots();

// Every way walked to its end, reading by reading: a hundred adjustments, beside the page.
const ways = { chances: schoolChances };
export type Ways = typeof ways;
expose(ways);

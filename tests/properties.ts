import { installFloorSlots } from "@/core/setout/floor-slots";
import fc from "fast-check";

installFloorSlots();

// A change is judged by the same examples as the one before it; new ones are looked for by
// `npm run soak -- properties`, which draws a seed of its own and says which it was.
fc.configureGlobal({ seed: Number(process.env.PROPERTY_SEED ?? 20_261_128) });

export { figuresToSee, spreadOf, watch, WATCH, type WatchPoint } from "./ewma";
export { driftOf, shopNumbers, type Drift, type ShopNumbers, type Watched } from "./shop";
export { isOff, partsOf, type Factor, type Figure, type Part, type Parts } from "./mixed";

export { fitFloor, type Floor, type FloorSpot } from "./floor";

export {
  hubCovariance,
  DATUM_NAMES,
  hubOf,
  markPoint,
  thrustAngleRad,
  vehiclePoints,
  type DatumKind,
  type RearToe,
  type VehiclePoint,
  type VehiclePointId,
} from "./points";
export { vehicleSchema, type Vehicle } from "./schema";
export {
  checkVin,
  normaliseVin,
  vinCheckDigit,
  vinFromCode,
  type ScannedVin,
  type VinCheck,
} from "./vin";
export {
  fitGlass,
  GLASS_SPOTS,
  glassPlace,
  type Glass,
  type GlassSeat,
  type GlassSpot,
} from "./glass";
export { archPlace, CORNER_NAMES, CORNERS, fitStance, type Corner, type Stance } from "./stance";
export { sensorMount, sideCameras, surroundMounts, type Sensor, type SensorMount } from "./sensors";
export { readTyre, type Tyre } from "./tyre";
export { readVehicle, signVehicle, vehicleJsonSchema, vehicleProblems } from "./draft";
export { vehicleFieldName } from "./words";
export { LEARNED_POINTS, LEAST_CARS, learnDimensions, type CarSeen, type Learned } from "./learn";
export { hubName } from "./hub-name";

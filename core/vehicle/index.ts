export {
  DATUM_NAMES,
  thrustAngleRad,
  vehiclePoints,
  type DatumKind,
  type RearToe,
  type VehiclePointId,
} from "./points";
export { vehicleSchema, type Vehicle } from "./schema";
export { checkVin, normaliseVin, vinCheckDigit, type VinCheck } from "./vin";

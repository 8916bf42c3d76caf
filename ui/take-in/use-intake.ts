import { useCallback, useEffect, useState } from "react";
import type { Intake } from "@/core/job";
import type { Stand } from "@/core/setout";
import type { Operation, Sheet } from "@/core/sheet";
import { degToRad, parseQuantity, radToDeg } from "@/core/units";
import { checkVin, type Vehicle, type VinCheck } from "@/core/vehicle";

/** What is on the take-in page, exactly as typed. Kept on the tablet until the job is open. */
export type IntakeDraft = {
  vin: string;
  vinReason: string;
  /** Chosen by hand; null while the VIN decides. */
  vehicleId: string | null;
  operations: Operation[];
  standId: string | null;
  customer: string;
  plate: string;
  order: string;
  toeLeft: string;
  toeRight: string;
};

const EMPTY: IntakeDraft = { vin: "", vinReason: "", vehicleId: null, operations: [], standId: null, customer: "", plate: "", order: "", toeLeft: "", toeRight: "" }; // prettier-ignore
const KEY = "iridel:take-in";

/** The draft, surviving reload and crash. */
export function useIntakeDraft(): [IntakeDraft, (patch: Partial<IntakeDraft>) => void, () => void] {
  const [draft, setDraft] = useState(EMPTY);
  useEffect(() => {
    try {
      // Only the browser knows what an earlier visit left; it is read after the first paint.
      // eslint-disable-next-line react-hooks/set-state-in-effect
      setDraft((d) => ({ ...d, ...(JSON.parse(localStorage.getItem(KEY) ?? "{}") as Partial<IntakeDraft>) }));
    } catch {
      localStorage.removeItem(KEY);
    }
  }, []);
  const change = useCallback((patch: Partial<IntakeDraft>) => {
    setDraft((d) => {
      const next = { ...d, ...patch };
      localStorage.setItem(KEY, JSON.stringify(next));
      return next;
    });
  }, []);
  const clear = useCallback(() => {
    localStorage.removeItem(KEY);
    setDraft(EMPTY);
  }, []);
  return [draft, change, clear];
}

export type FieldId = "vin" | "vehicle" | "done" | "toe" | "customer";

/** What a draft amounts to: the choices that follow from it, and the first thing it lacks. */
export type IntakeReading = {
  vin: VinCheck;
  vehicle: Vehicle | null;
  /** Whether the VIN itself picked the vehicle. */
  byVin: boolean;
  sheet: Sheet | null;
  stand: Stand | null;
  toe: { left: number | null; right: number | null; problem: string | null };
  lack: { field: FieldId | null; say: string } | null;
  intake: Intake | null;
};

const TOE = { name: "rear toe", dimension: "angle", min: degToRad(-3), max: degToRad(3) } as const;

function readToe(text: string): { value: number | null; problem: string | null } {
  if (text.trim() === "") return { value: null, problem: null };
  const parsed = parseQuantity(text, TOE, "deg");
  return parsed.ok ? { value: radToDeg(parsed.value), problem: null } : { value: null, problem: parsed.problem };
}

/** Works out what follows from the draft. Pure: the page redraws it at every key. */
export function readIntake(d: IntakeDraft, vehicles: Vehicle[], sheets: Sheet[], stands: Stand[]): IntakeReading {
  const vin = checkVin(d.vin);
  const matched = vehicles.find((v) => vin.vin.startsWith(v.vinStart)) ?? null;
  const vehicle = vehicles.find((v) => v.id === d.vehicleId) ?? matched;
  const sheet =
    sheets.find((s) => vehicle && s.appliesTo.vehicles.includes(vehicle.id) && d.operations.some((o) => s.appliesTo.after.includes(o))) ?? null; // prettier-ignore
  const stand = stands.find((s) => s.id === d.standId) ?? stands[0] ?? null;
  const [left, right] = [readToe(d.toeLeft), readToe(d.toeRight)];
  const toe = { left: left.value, right: right.value, problem: left.problem ?? right.problem };
  const reading = { vin, vehicle, byVin: vehicle !== null && vehicle === matched, sheet, stand, toe };

  const lacks = (field: FieldId | null, say: string): IntakeReading => ({
    ...reading,
    lack: { field, say },
    intake: null,
  });
  if (vin.vin === "") return lacks("vin", "Type or scan the VIN.");
  if (!vin.ok && d.vinReason.trim().length < 3) return lacks("vin", "Correct the VIN, or say why it is kept as it is.");
  if (!vehicle) return lacks("vehicle", "This VIN is not of a kind the shop knows: choose the vehicle.");
  if (d.operations.length === 0) return lacks("done", "Say what was done to the vehicle.");
  if (!sheet) return lacks(null, `The shop has no sheet for the ${vehicle.model} after this work. It cannot be opened without one: enter the sheet from the shop’s own service information first.`); // prettier-ignore
  if (!stand) return lacks(null, "The shop has no stand in its kit.");
  if (sheet.datum === "thrust" && (toe.left === null || toe.right === null))
    return lacks("toe", toe.problem ?? "The sheet squares to the thrust line: type rear toe left and right from the alignment printout."); // prettier-ignore
  if (d.customer.trim() === "") return lacks("customer", "Name the customer.");
  const intake: Intake = {
    vin: vin.vin,
    vinReason: vin.ok ? null : d.vinReason.trim(),
    vehicleId: vehicle.id,
    operations: d.operations,
    sheetId: sheet.id,
    sheetVersion: sheet.version,
    standId: stand.id,
    customer: d.customer.trim(),
    plate: d.plate.trim(),
    order: d.order.trim(),
    rearToeDeg: sheet.datum === "thrust" ? { left: toe.left!, right: toe.right! } : null,
  };
  return { ...reading, lack: null, intake };
}

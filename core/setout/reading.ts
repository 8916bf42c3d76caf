import type { Meaning, Parsed } from "@/core/units";
import { endsApart, parseShown, sideKeys } from "./level-slots";
import type { Instrument } from "./instrument";
import type { SetOutPlan } from "./plan";
import type { Slot } from "./slot";
import { readingSigma, slotsFor } from "./slots";

/**
 * What a typed text amounts to at a slot. `shown` is in mm or rad, positive to the side the slot
 * names so.
 */
export type Caught =
  | { kind: "empty" }
  | { kind: "value"; shown: number }
  | { kind: "problem"; message: string; guess?: Meaning; either?: [Meaning, Meaning] };

/**
 * Reads a text as a slot's quantity. A signed slot takes a side: "12 L", "12 R", "+12", "-12", or a
 * pressed side.
 *
 * @param side the side key that is pressed: 1, -1, or 0 for none
 * @param lengths the unit that a bare length is typed in on this tablet
 */
export function readCaught(
  text: string,
  slot: Slot,
  side: 1 | -1 | 0,
  lengths: "mm" | "in",
): Caught {
  if (text.trim() === "") return { kind: "empty" };
  const apart = endsApart(text, slot, lengths);
  if (apart !== null) return { kind: "value", shown: apart };
  const sided = slot.sides && sideKeys(slot)[0] === "L" ? /^(.*?)\s*([lr])\s*$/i.exec(text) : null;
  const [, typed, figure] = /^\s*([+\-−]?)\s*(.*)$/.exec(sided ? sided[1]! : text)!;
  const pressed = sided ? (sided[2]!.toLowerCase() === "l" ? 1 : -1) : side;
  const sign = !slot.sides
    ? 0
    : pressed !== 0
      ? pressed
      : typed === ""
        ? 0
        : typed === "+"
          ? 1
          : -1;
  if (slot.sides && sign === 0) {
    // The figure alone says nothing yet; on either side it must be one that can be true.
    const [plus, minus] = [
      parseShown(figure!, slot, lengths),
      parseShown(`-${figure}`, slot, lengths),
    ];
    if (plus.ok && plus.value === 0) return { kind: "value", shown: 0 };
    if (plus.ok || minus.ok)
      return {
        kind: "problem",
        message: `Say which side: ${slot.sides.positive} or ${slot.sides.negative}.`,
      };
    return refused(plus);
  }
  const parsed = parseShown(slot.sides ? (sign < 0 ? "-" : "") + figure! : text, slot, lengths);
  return parsed.ok
    ? { kind: "value", shown: parsed.value === 0 ? 0 : parsed.value }
    : refused(parsed);
}

/** The side stands on its button: a meaning is told without a sign. */
const unsigned = (m: Meaning): Meaning => ({ ...m, text: m.text.replace(/^-/, "") });

const refused = ({ problem, guess, either }: Extract<Parsed, { ok: false }>): Caught => ({
  kind: "problem",
  message: problem,
  ...(guess && { guess: unsigned(guess) }),
  ...(either && { either: [unsigned(either[0]), unsigned(either[1])] as [Meaning, Meaning] }),
});

/** A reading as it is told: what was typed at which slot with which instrument. */
export type ToldReading = {
  slotId: string;
  /** Exactly as typed or sent. */
  typed: string;
  /** The meaning that was chosen where the typed text could not be taken as it stood. */
  meant?: string | undefined;
  /** The unit of bare lengths; millimetres when it is not said. */
  lengths?: "mm" | "in" | undefined;
  instrumentId: string;
};

export type TakenReading =
  | { ok: true; slot: Slot; instrument: Instrument; shown: number; sigma: number }
  /** `problem` begins with the field at fault. */
  | { ok: false; problem: string; guess?: Meaning | undefined };

/**
 * Turns what was told into a reading: the one way for a tablet, a phone, an instrument that posts
 * and the server, so that a figure and its uncertainty always come from the same text and the same
 * instrument.
 *
 * @returns the figure in mm or rad with its standard uncertainty, or the field at fault with its
 *   remedy
 */
export function takeReading(plan: SetOutPlan, told: ToldReading): TakenReading {
  const instrument = plan.instruments.find((i) => i.id === told.instrumentId);
  if (!instrument)
    return {
      ok: false,
      problem: `instrument: ${told.instrumentId} is not in this job's kit. Choose one of its own.`,
    };
  const slots = slotsFor(plan);
  const slot = slots.find((s) => s.id === told.slotId);
  if (!slot || slot.instrument !== instrument.kind) {
    const own = slots.filter((s) => s.instrument === instrument.kind).map((s) => s.id);
    return {
      ok: false,
      problem: `slot: ${instrument.id} reads ${own.join(", ") || "nothing on this job"}.`,
    };
  }
  const caught = readCaught(told.meant ?? told.typed, slot, 0, told.lengths ?? "mm");
  if (caught.kind === "empty") return { ok: false, problem: "value: is empty. Read it again." };
  if (caught.kind === "problem")
    return { ok: false, problem: `value: ${caught.message}`, guess: caught.guess };
  return {
    ok: true,
    slot,
    instrument,
    shown: caught.shown,
    sigma: readingSigma(instrument, slot, caught.shown),
  };
}

/**
 * What only targets need that are no board ahead of the vehicle: readings, moves, words, relations.
 * It stands in files of its own, which a page fetches whose job has such targets: most jobs have
 * boards ahead alone, and a bench should open quickly. Whoever works with such targets calls
 * `installFloorSlots` first.
 *
 * This file knows none of the parts: each is declared where it is used, so that nothing imports itself
 * through here.
 */
export interface FloorParts {
  installed: true;
}

let parts: FloorParts | null = null;

export function installOnFloor(floor: FloorParts): void {
  parts = floor;
}

/** @throws where nobody has installed them: a fault of the program */
export function onFloor(): FloorParts {
  if (!parts) throw new Error("installFloorSlots() was not called.");
  return parts;
}

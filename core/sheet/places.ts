import type { Sheet } from "./schema";

/**
 * The sheet as it is at one of its places: that place's placement and board stand for the first
 * one's.
 */
export function sheetAt(sheet: Sheet, place: string): Sheet {
  const there = sheet.positions?.find((p) => p.id === place);
  return there
    ? { ...sheet, placement: there.placement, board: there.board ?? sheet.board }
    : sheet;
}

/** What a place is called. */
export const placeName = (sheet: Sheet, place: string): string =>
  sheet.positions?.find((p) => p.id === place)?.name ?? "first place";

/** A group of DXF: its code, and what it says. */
export type Group = [code: number, value: string | number];

/** A text in the letters every reader of the form knows: others by their number. */
export const plainAscii = (text: string): string =>
  text.replace(
    /[^\x20-\x7e]/g,
    (c) => `\\U+${c.charCodeAt(0).toString(16).toUpperCase().padStart(4, "0")}`,
  );

/** The text that was written so. */
export const fromPlainAscii = (text: string): string =>
  text.replace(/\\U\+([0-9A-Fa-f]{4})/g, (_, hex: string) =>
    String.fromCharCode(Number.parseInt(hex, 16)),
  );

/** Entities as a drawing, DXF R12 text, in millimetres ($INSUNITS 4); lengths to a ten-thousandth. */
export function dxfText(entities: readonly (readonly Group[])[]): string {
  const all: Group[] = [
    [0, "SECTION"],
    [2, "HEADER"],
    [9, "$ACADVER"],
    [1, "AC1009"],
    [9, "$INSUNITS"],
    [70, 4],
    [0, "ENDSEC"],
    [0, "SECTION"],
    [2, "ENTITIES"],
    ...entities.flat(),
    [0, "ENDSEC"],
    [0, "EOF"],
  ];
  const lines = all.map(
    ([code, value]) => `${code}\n${typeof value === "number" ? Number(value.toFixed(4)) : value}`,
  );
  return `${lines.join("\n")}\n`;
}

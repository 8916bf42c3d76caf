import Papa from "papaparse";

/** One thing a tool's report says: what it calls it, and what it gives. */
export type Field = { label: string; value: string };

/** A report longer than this is none. */
export const MOST_FIELDS = 400;

/**
 * The things a report says, whatever its form: a table with a head and one row, a table of names and
 * values, or lines with a name and a value on them.
 *
 * @returns in the report's own order; empty where nothing looks like a name with a value
 */
export function fieldsIn(text: string): Field[] {
  const plain = text.replace(/^\ufeff/, "").replace(/\r\n?/g, "\n");
  return (tableFields(plain) ?? lineFields(plain)).slice(0, MOST_FIELDS);
}

/** Fields of a table by columns; null where it is no table. */
function tableFields(text: string): Field[] | null {
  const { data, meta } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: "greedy" });
  const rows = data.map((r) => r.map((c) => c.trim()));
  const wide = rows[0]?.length ?? 0;
  if (wide < 2 || !",;\t|".includes(meta.delimiter)) return null;
  // A comma within a sentence makes no table: every row has to be as wide as the first.
  if (rows.length < 2 || rows.some((r) => r.length !== wide)) return null;
  if (wide === 2) return rows.flatMap((r) => field(r[0]!, r[1]!));
  // A head, and what is in its last row: the latest of several attempts.
  const last = rows.at(-1)!;
  return rows[0]!.flatMap((label, i) => field(label, last[i]!));
}

/** "Name: value", "Name = value", "Name ..... value", "Name   value". */
const LINE = /^\s*(\S.*?)\s*(?::\s+|:$|\s=\s|\.{3,}|\t+|\s{3,})\s*(.*?)\s*$/;

function lineFields(text: string): Field[] {
  return text.split("\n").flatMap((line) => {
    const found = LINE.exec(line);
    return found ? field(found[1]!, found[2]!) : [];
  });
}

const field = (label: string, value: string): Field[] =>
  label !== "" && value !== "" && label.length <= 80 && value.length <= 200
    ? [{ label, value }]
    : [];

import type { z } from "zod";
import type { Problem } from "./problem";

const EXPECTED: Record<string, string> = {
  string: "a text",
  object: "an object",
  array: "a list",
  int: "a whole number",
};

/** What is wrong with a field, in words a technician may act on. */
function wordsFor(i: z.core.$ZodRawIssue): string {
  switch (i.code) {
    case "invalid_type":
      return i.input === undefined
        ? "is missing"
        : `must be ${EXPECTED[i.expected] ?? `a ${i.expected}`}`;
    case "too_small":
      return i.origin === "string"
        ? Number(i.minimum) === 1
          ? "is empty"
          : `is too short; at least ${String(i.minimum)} characters`
        : i.origin === "array"
          ? `needs at least ${String(i.minimum)}`
          : `is too little; at least ${String(i.minimum)}`;
    case "too_big":
      return i.origin === "string"
        ? `is too long; at most ${String(i.maximum)} characters`
        : i.origin === "array"
          ? `has too many; at most ${String(i.maximum)}`
          : `is too much; at most ${String(i.maximum)}`;
    case "invalid_value":
      return `must be ${i.values.length > 1 ? "one of " : ""}${i.values.map(String).join(", ")}`;
    case "unrecognized_keys":
      return `has fields this format does not know: ${i.keys.join(", ")}`;
    case "invalid_format":
      return i.format === "date"
        ? "must be a date such as 2026-11-03"
        : "is not written the way it must be";
    default:
      return "is not what it must be";
  }
}

/**
 * Handed to a schema when it reads: what it does not say itself is then said in these words instead
 * of the library's, and each issue carries what it is about.
 */
export const plainly = { error: wordsFor, reportInput: true } as const;

/** An issue of a schema that read `plainly`, as a sentence. */
export const plainMessage = (i: z.core.$ZodIssue): string => `${i.message.replace(/\.$/, "")}.`;

/** Nothing was written there: it is not there, or a list that needs something is empty. */
const isMissing = (i: z.core.$ZodIssue): boolean =>
  i.code === "invalid_type"
    ? i.input === undefined
    : i.code === "too_small" &&
      i.origin === "array" &&
      Array.isArray(i.input) &&
      i.input.length === 0;

/** Every issue as a problem of its field; `whole` is what the document itself is called. */
export const problemsIn = (error: z.ZodError, whole: string): Problem[] =>
  error.issues.map((i) => ({
    field: i.path.join(".") || whole,
    message: plainMessage(i),
    ...(isMissing(i) ? { missing: true as const } : {}),
  }));

/**
 * Which fields of a line are a customer's own. They are kept beside the line, under a digest, so
 * that they can be erased on request. The VIN stays: it is what the record is about.
 */
const PERSONAL: Record<string, readonly (readonly string[])[]> = {
  "taken-in": [
    ["intake", "customer"],
    ["intake", "plate"],
    ["intake", "complaint"],
  ],
  consent: [["name"], ["strokes"]],
};

/** What stands in a field once it was erased. */
const ERASED: Record<string, unknown> = { strokes: [[[0, 0]]], plate: "", complaint: "" };
const ERASED_TEXT = "erased on request";

type Json = Record<string, unknown>;

/**
 * Cuts a body into what is sealed as it is and what may be erased; `personal` is null where there
 * is nothing of a person.
 */
export function splitPersonal(body: { kind: string }): { rest: string; personal: string | null } {
  const paths = PERSONAL[body.kind];
  if (!paths) return { rest: JSON.stringify(body), personal: null };
  const rest = structuredClone(body) as Json;
  const personal: Json = {};
  for (const path of paths) {
    const owner = path
      .slice(0, -1)
      .reduce<Json | undefined>((o, key) => o?.[key] as Json | undefined, rest);
    const key = path.at(-1)!;
    if (!owner || owner[key] === undefined) continue;
    personal[path.join(".")] = owner[key];
    delete owner[key];
  }
  return { rest: JSON.stringify(rest), personal: JSON.stringify(personal) };
}

/** Puts a body together again; what was erased says so. */
export function joinPersonal<B extends { kind: string }>(rest: string, personal: string | null): B {
  const body = JSON.parse(rest) as Json & { kind: string };
  const paths = PERSONAL[body.kind];
  if (!paths) return body as unknown as B;
  const own = personal === null ? null : (JSON.parse(personal) as Json);
  for (const path of paths) {
    const owner = path
      .slice(0, -1)
      .reduce<Json | undefined>((o, key) => o?.[key] as Json | undefined, body);
    const key = path.at(-1)!;
    if (!owner) continue;
    if (own === null) owner[key] ??= ERASED[key] ?? ERASED_TEXT;
    else if (path.join(".") in own) owner[key] = own[path.join(".")];
  }
  return body as unknown as B;
}

/** One place where two documents differ, as a path and both sides in words. */
export type Difference = { path: string; before: string; after: string };

const isRecord = (v: unknown): v is Record<string, unknown> =>
  typeof v === "object" && v !== null && !Array.isArray(v);

const HASH = /^[0-9a-f]{64}$/;

/** A value as one reads it: a thing by its fields, a list by its members. */
const words = (value: unknown): string => {
  if (value === undefined) return "–";
  // A kept picture by the beginning of its name: nobody reads all of a hash.
  if (typeof value === "string") return HASH.test(value) ? value.slice(0, 8) : value;
  if (Array.isArray(value)) return value.length === 0 ? "none" : value.map(words).join("; ");
  if (isRecord(value))
    return Object.entries(value)
      .map(([k, v]) => `${k} ${words(v)}`)
      .join(", ");
  return JSON.stringify(value);
};

/**
 * What changed from one version of a document to the next, leaf by leaf, in the order of the newer
 * one. Lists of things with an id are compared by id, so that a step put in front does not make
 * every later step look changed.
 */
export function differences(before: unknown, after: unknown, path = ""): Difference[] {
  if (Object.is(before, after)) return [];
  const at = (key: string): string => (path ? `${path}.${key}` : key);
  if (Array.isArray(before) && Array.isArray(after)) {
    const keyed = [...before, ...after].every((x) => isRecord(x) && typeof x.id === "string");
    if (!keyed)
      return JSON.stringify(before) === JSON.stringify(after)
        ? []
        : [{ path, before: words(before), after: words(after) }];
    const byId = (list: unknown[]) => new Map(list.map((x) => [(x as { id: string }).id, x]));
    const [a, b] = [byId(before), byId(after)];
    const ids = [...new Set([...b.keys(), ...a.keys()])];
    const moved =
      [...a.keys()].filter((k) => b.has(k)).join() !== [...b.keys()].filter((k) => a.has(k)).join();
    return [
      ...(moved
        ? [{ path, before: [...a.keys()].join(", "), after: [...b.keys()].join(", ") }]
        : []),
      ...ids.flatMap((id) => differences(a.get(id), b.get(id), at(id))),
    ];
  }
  if (isRecord(before) && isRecord(after))
    return [...new Set([...Object.keys(after), ...Object.keys(before)])].flatMap((k) =>
      differences(before[k], after[k], at(k)),
    );
  return [{ path, before: words(before), after: words(after) }];
}

type Tree = Record<string, unknown>;
const isTree = (v: unknown): v is Tree => typeof v === "object" && v !== null;

/** The value at a dotted path; undefined where the path leads nowhere. */
export const getAt = (doc: Tree, path: string): unknown =>
  path.split(".").reduce<unknown>((v, key) => (isTree(v) ? v[key] : undefined), doc);

/**
 * A copy of the document with another value at a dotted path; undefined takes the field out.
 * Nothing else is touched.
 */
export function setAt(doc: Tree, path: string, value: unknown): Tree {
  const [key, ...rest] = path.split(".") as [string, ...string[]];
  const copy = (Array.isArray(doc) ? [...(doc as unknown[])] : { ...doc }) as Tree;
  if (rest.length > 0) copy[key] = setAt(isTree(copy[key]) ? copy[key] : {}, rest.join("."), value);
  else if (value === undefined) delete copy[key];
  else copy[key] = value;
  return copy;
}

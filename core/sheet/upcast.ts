/** How a sheet of the first format calls the place of its own `placement`. */
const FIRST = "first";

type Json = Record<string, unknown>;

const isObject = (v: unknown): v is Json =>
  typeof v === "object" && v !== null && !Array.isArray(v);

/** A copy with only the fields that are there. */
const present = (fields: Json): Json =>
  Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined));

/**
 * Older cautions are bare lines, and were shown by the words in them; the first stood before the
 * work at the wheels.
 */
const caution = (say: unknown, i: number): Json => {
  const text = String(say);
  const when = text.includes("laser")
    ? "laser"
    : text.includes("tether")
      ? "lift"
      : i === 0
        ? "wheels"
        : "start";
  return { say, when };
};

/**
 * Reads a sheet of an older format as one of today's; anything else is handed on as it is. A draft
 * may lack any field, and then lacks it afterwards too.
 *
 * Format 1 had one board with `placement` and `tolerance`, and `positions` it went to later, or that
 * another board took `beside` it. Each becomes a target with figures of its own; those that stood
 * beside the one before belong to its setup.
 */
export function upcastSheet(json: unknown): unknown {
  if (!isObject(json) || json.format !== "iridel.sheet/1") return json;
  const {
    kind,
    datum,
    distanceFrom,
    board,
    placement,
    upright,
    positions,
    tolerance,
    cautions,
    ...rest
  } = json;
  const target = (id: string, name: unknown, more: Json): Json =>
    present({
      id,
      name,
      kind: "board",
      object: more.board ?? board,
      datum,
      distanceFrom,
      placement: more.placement,
      upright,
      tolerance,
    });
  const first = target(FIRST, "first place", { placement });
  const setups: { id: string; name: unknown; targets: Json[] }[] = [
    { id: FIRST, name: "first place", targets: [first] },
  ];
  for (const p of Array.isArray(positions) ? positions : []) {
    if (!isObject(p)) continue;
    const next = target(String(p.id), p.name, p);
    if (p.beside === true) setups.at(-1)!.targets.push(next);
    else setups.push({ id: String(p.id), name: p.name, targets: [next] });
  }
  return present({
    ...rest,
    format: "iridel.sheet/2",
    status: "checked",
    method: kind,
    setups,
    cautions: Array.isArray(cautions) ? cautions.map(caution) : cautions,
  });
}

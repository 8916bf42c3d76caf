/**
 * Takes a text apart into the figures of two fields, left then right: "4812 4796", "4 812 4 796", or
 * without a space, as keypads have none, "48124796". Null where it is one figure of either, or could
 * be taken apart in more ways than one that both fields can be true of.
 *
 * @param read what a text amounts to at the left and at the right field; null where it is nothing
 */
export function splitPair<V>(
  text: string,
  [left, right]: readonly [(part: string) => V | null, (part: string) => V | null],
): { values: [V, V]; typed: [string, string] } | null {
  const whole = text.trim();
  if (whole === "" || left(whole) !== null || right(whole) !== null) return null;
  const words = whole.split(/[\s;/]+/);
  const cuts: [string, string][] =
    words.length > 1
      ? words
          .slice(1)
          .map((_, i) => [words.slice(0, i + 1).join(" "), words.slice(i + 1).join(" ")])
      : /^\d+$/.test(whole)
        ? // Left and right are about as much: their figures have as many digits, or one more.
          [...new Set([Math.floor(whole.length / 2), Math.ceil(whole.length / 2)])].map((at) => [
            whole.slice(0, at),
            whole.slice(at),
          ])
        : [];
  const found = cuts.flatMap(([a, b]) => {
    const [l, r] = [left(a), right(b)];
    return l !== null && r !== null && !b.startsWith("0")
      ? [{ values: [l, r] as [V, V], typed: [a, b] as [string, string] }]
      : [];
  });
  return found.length === 1 ? found[0]! : null;
}

/** Whether a text holds every word looked for, as a part of a word and in any order. */
export function fits(text: string, find: string): boolean {
  const all = text.toLowerCase();
  return find
    .toLowerCase()
    .split(/\s+/)
    .every((w) => all.includes(w));
}

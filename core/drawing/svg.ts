const SIGNS: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };

/** A text as SVG holds it. */
export const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => SIGNS[c]!);

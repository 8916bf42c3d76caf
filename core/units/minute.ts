/** Minutes of a day as a clock shows them, 24 hours. */
export function clockOf(minute: number): string {
  const whole = Math.round(minute);
  const two = (n: number): string => String(n).padStart(2, "0");
  return `${two(Math.floor(whole / 60) % 24)}:${two(whole % 60)}`;
}

/** Minutes of a day from a typed time, "16:40", "16.40" or "1640"; null where it is none. */
export function minuteOfText(text: string): number | null {
  const read = /^(\d{1,2})[:.]?(\d\d)$/.exec(text.trim());
  const [h, m] = read ? [Number(read[1]), Number(read[2])] : [99, 99];
  return h < 24 && m < 60 ? 60 * h + m : null;
}

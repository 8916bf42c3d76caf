/** A calendar day in words: 28 Nov 2026 for 2026-11-28; what is no such day stays as it is. */
export function dayInWords(day: string): string {
  const at = /^\d{4}-\d\d-\d\d$/.test(day) ? new Date(`${day}T00:00:00Z`) : new Date(NaN);
  if (Number.isNaN(at.getTime())) return day;
  return at.toLocaleDateString("en-GB", {
    timeZone: "UTC",
    day: "numeric",
    month: "short",
    year: "numeric",
  });
}

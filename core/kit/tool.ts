import { z } from "zod";
import { dayInWords } from "@/core/units";

/** A scan tool of the shop, with what of it comes to an end. */
export const toolSchema = z.object({
  id: z.string().regex(/^[A-Z0-9-]{2,12}$/, "use capitals, figures and dashes"),
  name: z.string().min(3).max(60),
  serial: z.string().max(40),
  software: z.string().min(1, "is what its screen shows").max(40),
  /** When that software was put on; and for how long the shop trusts it to know its vehicles. */
  softwareOn: z.iso.date(),
  updateEveryDays: z.number().int().min(1, "is at least a day").max(1500),
  /** Last day that is paid for; null where nothing is. */
  paidUntil: z.iso.date().nullable(),
  /** Last day of the shop's registration with the gateways of makers; null where it has none. */
  gatewayUntil: z.iso.date().nullable(),
});
export type ShopTool = z.infer<typeof toolSchema>;

/** What of a tool has ended, or soon does; a gateway matters only to a vehicle that has one. */
export type ToolEnd = {
  toolId: string;
  what: "software" | "subscription" | "gateway";
  /** Days from today to its last day; less than nothing once it is over; null where there never was one. */
  days: number | null;
};

/** So many days before its end a thing is spoken of. */
export const SOON_DAYS = 14;
const DAY_MS = 86_400_000;

/**
 * What of a tool to see to, the most pressing first.
 *
 * @param today the shop's calendar day, YYYY-MM-DD
 * @param gateway whether a gateway stands in the way; the registration is of no matter where none does
 */
export function toolEnds(tool: ShopTool, today: string, gateway: boolean): ToolEnd[] {
  const daysTo = (day: string): number =>
    Math.round((Date.parse(day) - Date.parse(today)) / DAY_MS);
  const ends: ToolEnd[] = [
    { toolId: tool.id, what: "software", days: daysTo(tool.softwareOn) + tool.updateEveryDays },
    ...(tool.paidUntil
      ? [{ toolId: tool.id, what: "subscription" as const, days: daysTo(tool.paidUntil) }]
      : []),
    ...(gateway
      ? [
          {
            toolId: tool.id,
            what: "gateway" as const,
            days: tool.gatewayUntil === null ? null : daysTo(tool.gatewayUntil),
          },
        ]
      : []),
  ];
  return ends
    .filter((e) => e.days === null || e.days < SOON_DAYS)
    .toSorted((a, b) => (a.days ?? -Infinity) - (b.days ?? -Infinity));
}

/** Whether it is over already: what it was for is not to be had. */
export const isOver = ({ days }: ToolEnd): boolean => days === null || days < 0;

const inDays = (days: number): string =>
  days === 0 ? "today" : days === 1 ? "tomorrow" : `in ${days} days`;
const ago = (days: number): string => (days === 1 ? "yesterday" : `${days} days ago`);

/** The same in words, with what it means and what to do. */
export function toolEndWords(tool: ShopTool, { what, days }: ToolEnd): string {
  if (days === null)
    return "not registered with any maker’s gateway: this vehicle will refuse to clear or to learn";
  const over = days < 0;
  const when = over ? ago(-days) : inDays(days);
  switch (what) {
    case "software":
      return over
        ? `software of ${dayInWords(tool.softwareOn)} was due to be renewed ${when}: it may not know this vehicle`
        : `software of ${dayInWords(tool.softwareOn)} is due to be renewed ${when}`;
    case "subscription":
      return over
        ? `paid for until ${dayInWords(tool.paidUntil!)}: routines may be missing`
        : `paid for until ${dayInWords(tool.paidUntil!)}, ${when}`;
    case "gateway":
      return over
        ? `gateway registration ended ${dayInWords(tool.gatewayUntil!)}: this vehicle will refuse to clear or to learn`
        : `gateway registration ends ${dayInWords(tool.gatewayUntil!)}, ${when}`;
  }
}

/** The pages of the shop, in the order of its bar. */
export const PLACES = [
  { href: "/", name: "Jobs" },
  { href: "/day", name: "Day" },
  { href: "/take-in", name: "Take in" },
  { href: "/records", name: "Records" },
  { href: "/sheets", name: "Sheets" },
  { href: "/vehicles", name: "Vehicles" },
  { href: "/kit", name: "Kit" },
  { href: "/bays", name: "Bays" },
  { href: "/roads", name: "Roads" },
  { href: "/settings", name: "Rules" },
  { href: "/people", name: "People" },
] as const;
/** Only the lead's to read. */
export const LEADS = { href: "/log", name: "Log" } as const;

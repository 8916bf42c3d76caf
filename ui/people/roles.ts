export type Role = "technician" | "lead" | "viewer";

/** What each role is called and may do. */
export const ROLES: { id: Role; name: string; may: string }[] = [
  { id: "technician", name: "Technician", may: "works on jobs, sheets, vehicles and kit" },
  { id: "lead", name: "Lead", may: "also changes rules and people" },
  { id: "viewer", name: "Viewer", may: "looks at everything, writes nothing" },
];

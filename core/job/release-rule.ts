/** Who may give a vehicle back in this shop, and whether a second person signs before that. */
export type ReleaseRule = { by: "writer" | "lead"; second: boolean };
export const ANYONE_RELEASES: ReleaseRule = { by: "writer", second: false };

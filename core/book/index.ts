export { plainly, plainMessage, problemsIn } from "./issues";
export { fits } from "./fits";
export { differences, type Difference } from "./difference";

export type { Problem } from "./problem";

/** A document on its way: any JSON object, not yet checked by a second person. */
export type Draft = Record<string, unknown>;

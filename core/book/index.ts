export { plainMessage, problemsIn } from "./issues";
export { differences, type Difference } from "./difference";

/** What is wrong with a field of a document, and what to do. */
export type Problem = { field: string; message: string };

/** A document on its way: any JSON object, not yet checked by a second person. */
export type Draft = Record<string, unknown>;

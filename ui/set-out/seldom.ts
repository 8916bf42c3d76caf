/** What only some set-outs show above or below the floor: small, and fetched as one. */
export { BlindNote } from "./blind-note";
export { BookFigures } from "./book-figures";
export { LeftBar } from "./left-bar";
export { Targets } from "./targets";
export { BringBar } from "./bring-bar";

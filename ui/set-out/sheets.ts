/** What is laid over the floor now and then: fetched as one, a while after the first page. */
export { PhotoButton } from "../photos/photo-button";
export { CareDialog } from "../proof/care-dialog";
export { JoinDialog } from "../stand/join-dialog";
export { MeansDialog } from "./means-dialog";
export { LinesDialog } from "./lines-dialog";
export { TouchDialog } from "./touch-dialog";
export { WaysDialog } from "./ways-dialog";

/** What is wrong with a field of a document, and what to do. */
export type Problem = {
  field: string;
  message: string;
  /** Nothing was written there yet. */
  missing?: true;
};

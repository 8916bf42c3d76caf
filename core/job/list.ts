/** How much of a shop's list is shown at once, at most, and how many jobs a search looks at. */
export const LIST = { page: 60, most: 600, found: 1000 } as const;

/** What a list of jobs can stand in order of. */
export const JOB_ORDERS = {
  work: "Newest work first",
  promised: "Promised soonest first",
  number: "Newest job first",
} as const;
export type JobOrder = keyof typeof JOB_ORDERS;

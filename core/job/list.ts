/** How much of a shop's list is shown at once, at most, and how many jobs a search looks at. */
export const LIST = { page: 60, most: 600, found: 1000 } as const;

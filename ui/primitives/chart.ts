/** How axes and tips of every chart look. */
export const AXIS = { stroke: "var(--soft)", fontSize: 13, tickLine: false } as const;
export const TIP = {
  contentStyle: {
    background: "var(--sheet)",
    border: "1px solid var(--hairline)",
    color: "var(--ink)",
  },
  cursor: { fill: "var(--wash)" },
} as const;

/** The eight stages of a job, in the order of the rail. */
export const STAGES = [
  { n: 1, id: "take-in", name: "Take in" },
  { n: 2, id: "owed", name: "Owed" },
  { n: 3, id: "ready", name: "Ready" },
  { n: 4, id: "set-out", name: "Set out" },
  { n: 5, id: "run", name: "Run" },
  { n: 6, id: "drive", name: "Drive" },
  { n: 7, id: "prove", name: "Prove" },
  { n: 8, id: "hand-over", name: "Hand over" },
] as const;

export type StageId = (typeof STAGES)[number]["id"];

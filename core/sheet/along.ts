/**
 * Whether a target after the first of its setup is there from its setup's beginning: mats are laid
 * by hand, and boards of one beam come with it. Any other waits for its step.
 */
export const standsAlong = (t: { kind: string; beam?: unknown }): boolean =>
  t.kind !== "board" || t.beam !== undefined;

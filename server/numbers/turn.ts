const turn = { n: 0 };

/** Which state of their sources the numbers are of: a row may be put in place of another unseen. */
export const numbersTurn = (): number => turn.n;

/** Says that something the numbers are worked out of was written. */
export const turnNumbers = (): void => void turn.n++;

/** Why a network could not be adjusted. */
export type SurveyErrorCode =
  /** An input is missing, doubled, non-finite or absurd; `culprit` names it. */
  | "bad-input"
  /** The readings leave an unknown loose (datum defect or too few readings); `culprit` names it. */
  | "loose"
  /**
   * A reading has no direction to work with (ends coincide, beam along its panel); `culprit` names
   * it.
   */
  | "degenerate"
  /** The readings contradict each other or the start so far that no solution was reached. */
  | "no-convergence";

/**
 * The one error type {@link adjustNetwork} throws. The message is a full sentence that says what to
 * do.
 */
export class SurveyError extends Error {
  override readonly name = "SurveyError";
  constructor(
    readonly code: SurveyErrorCode,
    /** Id of the observation, point or body at fault, or of the unknown that is loose. */
    readonly culprit: string,
    message: string,
  ) {
    super(message);
  }
}

/** The request does not fit what is stored. The message says what to do. */
export class JobRefusal extends Error {
  override readonly name = "JobRefusal";
}

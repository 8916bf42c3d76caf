/** What leaves the house by e-mail. */
export type Letter = { to: string; subject: string; text: string };

/** Whatever carries letters: the one interface the product knows. */
export interface Mailer {
  /** @throws DeviceRefusal where the letter is not taken; the message says what to do */
  send(letter: Letter): Promise<void>;
}

/** How soon a part of the page that could not be fetched is asked for again, milliseconds. */
const AGAIN_MS = 1000;

/**
 * A part of the page that is fetched as soon as the shop answers: a tablet out of reach shows it later,
 * and does not break off.
 */
export const patiently =
  <T>(fetch: () => Promise<T>): (() => Promise<T>) =>
  () =>
    new Promise((done) => {
      const attempt = (): void => void fetch().then(done, () => setTimeout(attempt, AGAIN_MS));
      attempt();
    });

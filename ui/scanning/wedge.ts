/** Longest average time between the keys of a scanner, ms; fingers are several times slower. */
const BURST_MS = 40;
/** A pause after which the next key begins something new. */
const PAUSE_MS = 300;

/**
 * Tells a keyboard-wedge scanner from fingers: it types six characters or more in one burst and
 * ends with Enter. Feed it every key with its time.
 */
export class Wedge {
  #keys: string[] = [];
  #from = 0;
  #last = -Infinity;

  /**
   * @returns "began" on the first key of what may be a burst, the code on its end, otherwise null
   */
  key(key: string, at: number): "began" | { code: string } | null {
    if (at - this.#last > PAUSE_MS) this.#keys = [];
    this.#last = at;
    if (key === "Enter") {
      const { length } = this.#keys;
      const code = this.#keys.join("");
      const pace = (at - this.#from) / Math.max(1, length);
      this.#keys = [];
      return length >= 6 && pace < BURST_MS ? { code } : null;
    }
    if (key.length !== 1) return null;
    this.#keys.push(key);
    if (this.#keys.length > 1) return null;
    this.#from = at;
    return "began";
  }
}

// Loaded before the server of a test: its clock stands as far from the real one as a file says, so that
// a test can let hours pass.
import { readFileSync } from "node:fs";

const file = process.env.IRIDEL_TEST_CLOCK;
const Real = Date;
let [offset, readAt] = [0, 0];
const moved = () => {
  const now = Real.now();
  if (now - readAt > 50) {
    offset = Number(readFileSync(file, "utf8"));
    readAt = now;
  }
  return now + offset;
};

globalThis.Date = new Proxy(Real, {
  construct: (target, of, as) => Reflect.construct(target, of.length === 0 ? [moved()] : of, as),
  apply: () => new Real(moved()).toString(),
  get: (target, key) => (key === "now" ? moved : Reflect.get(target, key)),
});

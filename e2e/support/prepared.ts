import { execFileSync } from "node:child_process";
import type { Shop } from "./shop";

/** A job that is set out already, in a bay of its own. */
export type Prepared = {
  seed: string;
  sheetId: string;
  sheetVersion: number;
  /** The board is turned by so much after it was proved, and its readings are left as they are, degrees. */
  turnDeg?: number;
  /** What is left unanswered under Ready. */
  unanswered?: string[];
};

/** @returns the job's address */
export function prepared(shop: Shop, what: Prepared): string {
  const id = execFileSync("npx", ["tsx", "e2e/support/prepare.ts", JSON.stringify(what)], {
    env: { ...process.env, IRIDEL_DB: shop.file, IRIDEL_DEMO: "1" },
    encoding: "utf8",
  });
  return `${shop.url}/jobs/${id.trim()}`;
}

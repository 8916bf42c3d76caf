import { mkdirSync } from "node:fs";
import path from "node:path";

/** Everything the environment may say, read in one place. */
export const config = {
  /** The database file. Its folder is made when absent. */
  get databaseFile(): string {
    const file = path.resolve(
      /* turbopackIgnore: true */ process.env.IRIDEL_DB ?? "var/iridel.sqlite",
    );
    mkdirSync(path.dirname(file), { recursive: true });
    return file;
  },
  /**
   * Seed of every simulated bay opened from now on, so that tests meet the same bay again; normally
   * each job has its own.
   */
  get baySeed(): string | undefined {
    return process.env.IRIDEL_BAY_SEED || undefined;
  },
  /** Whether bays and devices are the simulated stand-ins that ship with the program. */
  get simulated(): boolean {
    return process.env.IRIDEL_SIMULATED !== "0";
  },
  /**
   * Where copies are made while serving, how often, and how many are kept; null when it is not
   * asked for.
   */
  get backup(): { file: string; hours: number; keep: number } | null {
    const file = process.env.IRIDEL_BACKUP;
    if (!file) return null;
    const number = (name: string, otherwise: number): number =>
      Math.max(1, Number(process.env[name]) || otherwise);
    return {
      file: path.resolve(/* turbopackIgnore: true */ file),
      hours: number("IRIDEL_BACKUP_HOURS", 24),
      keep: number("IRIDEL_BACKUP_KEEP", 7),
    };
  },
  /**
   * Demo mode lists the demo people with their PINs on the sign-in page. Never set it in a real
   * shop.
   */
  get demo(): boolean {
    return process.env.IRIDEL_DEMO === "1";
  },
};

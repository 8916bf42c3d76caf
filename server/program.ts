import { existsSync, readFileSync } from "node:fs";
import path from "node:path";

const here = (file: string): string => path.join(/* turbopackIgnore: true */ process.cwd(), file);

/**
 * Version of the program, with the build where there is one: it stands beside everything that is
 * kept as it was made.
 */
export const program = ((): string => {
  const { version } = JSON.parse(readFileSync(here("package.json"), "utf8")) as { version: string };
  const mark = here(".next/BUILD_ID");
  return process.env.NODE_ENV === "production" && existsSync(mark)
    ? `${version} (${readFileSync(mark, "utf8").trim()})`
    : version;
})();

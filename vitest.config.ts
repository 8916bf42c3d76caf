import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

const alias = { "@": fileURLToPath(new URL(".", import.meta.url)) };
const shared = { environment: "node", testTimeout: 60_000, setupFiles: ["tests/properties.ts"] };

export default defineConfig({
  test: {
    // Both cores: left to itself it keeps one free.
    maxWorkers: 2,
    projects: [
      {
        resolve: { alias },
        // Pure functions: nothing one file does reaches another, so they share their modules.
        test: {
          ...shared,
          name: "pure",
          include: ["{core,devices,ui,demo,tests,workers}/**/*.test.{ts,tsx}"],
          pool: "threads",
          isolate: false,
        },
      },
      {
        resolve: { alias },
        // Each file has a database of its own, held by its process.
        test: { ...shared, name: "server", include: ["server/**/*.test.{ts,tsx}"], pool: "forks" },
      },
    ],
  },
});

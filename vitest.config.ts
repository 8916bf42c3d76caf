import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { alias: { "@": fileURLToPath(new URL(".", import.meta.url)) } },
  test: {
    include: ["{core,devices,server,ui,demo,workers}/**/*.test.{ts,tsx}"],
    environment: "node",
    testTimeout: 60_000,
  },
});

import type { NextConfig } from "next";

const config: NextConfig = {
  // Native or font-embedding packages stay outside the bundle; they run only on the server.
  serverExternalPackages: ["better-sqlite3", "@node-rs/argon2", "@react-pdf/renderer", "sharp", "exifr"],
  outputFileTracingRoot: import.meta.dirname,
  // `npm test` type-checks everything, tests included, before it builds; the build does not do it twice.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  devIndicators: false,
};

export default config;

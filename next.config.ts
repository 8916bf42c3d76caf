import type { NextConfig } from "next";

const config: NextConfig = {
  // Native or font-embedding packages stay outside the bundle; they run only on the server.
  serverExternalPackages: ["better-sqlite3", "@node-rs/argon2", "@react-pdf/renderer"],
  outputFileTracingRoot: import.meta.dirname,
  poweredByHeader: false,
  devIndicators: false,
};

export default config;

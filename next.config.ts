import type { NextConfig } from "next";

const config: NextConfig = {
  // Native or font-embedding packages stay outside the bundle; they run only on the server.
  serverExternalPackages: [
    "pdfjs-dist",
    "better-sqlite3",
    "@node-rs/argon2",
    "@react-pdf/renderer",
    "fontkit",
    "sharp",
    "exifr",
  ],
  outputFileTracingRoot: import.meta.dirname,
  // `npm test` type-checks everything, tests included, before it builds; the build does not do it
  // twice.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  headers: async () => [
    {
      source: "/:path*",
      headers: [
        { key: "x-content-type-options", value: "nosniff" },
        { key: "x-frame-options", value: "DENY" },
        { key: "referrer-policy", value: "same-origin" },
        {
          key: "permissions-policy",
          value:
            "camera=(self), geolocation=(self), microphone=(self), payment=(), usb=(), interest-cohort=()",
        },
        { key: "cross-origin-opener-policy", value: "same-origin" },
      ],
    },
    {
      source: "/api/:path*",
      headers: [{ key: "content-security-policy", value: "frame-ancestors 'none'" }],
    },
  ],
  devIndicators: false,
};

export default config;

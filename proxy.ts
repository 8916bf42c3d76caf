import { NextResponse, type NextRequest } from "next/server";

/**
 * What a page of ours may load and who may frame it. Scripts run only with this answer's own nonce;
 * the code reader needs WebAssembly. Handlers under /api answer no pages and are left alone:
 * nothing stands between them and a body.
 */
const policy = (nonce: string): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${process.env.NODE_ENV === "production" ? "" : " 'unsafe-eval'"}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");

export function proxy(request: NextRequest): NextResponse {
  const nonce = Buffer.from(crypto.randomUUID()).toString("base64");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy(nonce));
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy(nonce));
  return response;
}

export const config = {
  matcher: [
    {
      source: "/((?!api/|_next/|icon.svg|manifest.webmanifest|examples/).*)",
      missing: [{ type: "header", key: "next-router-prefetch" }],
    },
  ],
};

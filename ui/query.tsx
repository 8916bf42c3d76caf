"use client";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";

/**
 * What is asked of the shop again and again, and what is kept on the tablet, goes through one
 * client.
 */
export function Queries({ children }: { children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        // A shop's own network has no "online": a request is tried whatever the browser thinks of
        // it.
        defaultOptions: {
          queries: { networkMode: "always", retry: false },
        },
      }),
  );
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}

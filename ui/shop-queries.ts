import { QueryClient } from "@tanstack/react-query";

// A shop's own network has no "online": a request is tried whatever the browser thinks of it.
const make = (): QueryClient =>
  new QueryClient({ defaultOptions: { queries: { networkMode: "always", retry: false } } });

const kept: { client?: QueryClient } = {};

/**
 * What is asked of the shop again and again goes through one client. It is handed to each question
 * rather than laid round every page: a page that asks nothing does not load it. The server draws
 * each page with a fresh one, so that no person is shown what another was.
 */
export const shopQueries = (): QueryClient =>
  typeof window === "undefined" ? make() : (kept.client ??= make());

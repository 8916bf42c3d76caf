/**
 * The session of a vehicle's gateway hangs on the network: it bears an outage for a while, then it ends,
 * and with it the learning that was under way.
 */
export const GATEWAY_BEARS_S = 180;

export type GatewaySession =
  | { is: "open" }
  /** No network, and so many seconds until it ends. */
  | { is: "holding"; leftS: number }
  | { is: "ended"; atMs: number };

export type GatewayWatch = { session: GatewaySession; awaySinceMs: number | null };
export const GATEWAY_OPEN: GatewayWatch = { session: { is: "open" }, awaySinceMs: null };

/** Takes in whether the network is there at a moment; what is not known changes nothing. */
export function watchGateway(w: GatewayWatch, atMs: number, online: boolean | null): GatewayWatch {
  if (w.session.is === "ended" || online === null) return w;
  if (online) return GATEWAY_OPEN;
  const since = w.awaySinceMs ?? atMs;
  const leftS = GATEWAY_BEARS_S - (atMs - since) / 1000;
  return leftS <= 0
    ? { session: { is: "ended", atMs }, awaySinceMs: since }
    : { session: { is: "holding", leftS }, awaySinceMs: since };
}

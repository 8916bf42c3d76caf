/**
 * Runs once when the server starts: the shop's book is opened, looked at, and closed well when the
 * server ends.
 */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { startServer } = await import("./server/start");
  startServer();
}

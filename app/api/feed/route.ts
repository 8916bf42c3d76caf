import { problem } from "@/server/auth/guard";
import { FeedRefusal, feedOf, liveIn, parseFeed, takeFeed, takeLive } from "@/server/feed/feed";
import { readBytes, route } from "@/server/http/route";

const MOST_BYTES = 100_000;

/**
 * Readings from an instrument that can post: JSON or CSV, with its token; each reading once, by the
 * instrument's own number. What it shows while something is turned is passed on and not kept.
 */
export const POST = route(async (request: Request) => {
  const token = /^Bearer ([\w-]{20,80})$/.exec(request.headers.get("authorization") ?? "")?.[1];
  const feed = token ? feedOf(token) : null;
  if (!feed)
    return problem(
      401,
      "authorization: send the instrument's token as Bearer. Make one under Kit.",
    );
  const text = (await readBytes(request, MOST_BYTES)).toString("utf8");
  try {
    const live = liveIn(text);
    if (live) {
      takeLive(feed, live);
      return Response.json({ live: "shown" });
    }
    const body = parseFeed(text, request.headers.get("content-type") ?? "");
    const readings = takeFeed(feed, body);
    return Response.json(
      { readings },
      { status: readings.some((r) => r.outcome === "refused") ? 422 : 200 },
    );
  } catch (error) {
    if (error instanceof FeedRefusal) return problem(400, error.message);
    throw error;
  }
});

import { problem } from "@/server/auth/guard";
import { FeedRefusal, feedOf, parseFeed, takeFeed } from "@/server/feed/feed";

/** Readings from an instrument that can post: JSON or CSV, with its token; each reading once, by the instrument's own number. */
export async function POST(request: Request) {
  const token = /^Bearer ([\w-]{20,80})$/.exec(request.headers.get("authorization") ?? "")?.[1];
  const feed = token ? feedOf(token) : null;
  if (!feed) return problem(401, "authorization: send the instrument's token as Bearer. Make one under Kit.");
  const text = await request.text();
  if (text.length > 100_000) return problem(413, "The post is larger than 100 kB. Post at most 50 readings at once.");
  try {
    const body = parseFeed(text, request.headers.get("content-type") ?? "");
    const readings = takeFeed(feed, body);
    return Response.json({ readings }, { status: readings.some((r) => r.outcome === "refused") ? 422 : 200 });
  } catch (error) {
    if (error instanceof FeedRefusal) return problem(400, error.message);
    throw error;
  }
}

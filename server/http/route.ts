import { troubleOf } from "../db/trouble";
import { problem } from "../auth/guard";
import { JobRefusal } from "../jobs/refusal";

/** The request itself cannot be taken: its kind, its size, where it comes from. */
export class RequestRefusal extends Error {
  override readonly name = "RequestRefusal";
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

const READS = new Set(["GET", "HEAD"]);

/**
 * Whether a browser sends this from a page that is not ours. An instrument or a script names no
 * origin.
 */
function isForeign(request: Request): boolean {
  const site = request.headers.get("sec-fetch-site");
  if (site) return site !== "same-origin" && site !== "none";
  const origin = request.headers.get("origin");
  if (!origin) return false;
  const host = request.headers.get("host") ?? new URL(request.url).host;
  return !URL.canParse(origin) || new URL(origin).host !== host;
}

/**
 * Every route handler goes through here: nothing is written for a page of somebody else's, refusals
 * become answers in words, and a database that is busy or full says so instead of failing.
 */
export const route =
  <C>(handle: (request: Request, context: C) => Promise<Response>) =>
  async (request: Request, context: C): Promise<Response> => {
    if (!READS.has(request.method) && isForeign(request))
      return problem(403, "This was sent from another page. Do it in Iridel itself.");
    try {
      return await handle(request, context);
    } catch (error) {
      if (error instanceof RequestRefusal) return problem(error.status, error.message);
      if (error instanceof JobRefusal) return problem(422, error.message);
      const trouble = troubleOf(error);
      if (!trouble) throw error;
      if (trouble.kind !== "busy") console.error(trouble.message, error);
      return problem(trouble.status, trouble.message, { trouble: trouble.kind });
    }
  };

/**
 * Reads a body piece by piece and gives up at the limit, before it fills the memory. @throws
 * RequestRefusal
 */
export async function readBytes(request: Request, limit: number): Promise<Buffer> {
  const tooLarge = (): RequestRefusal =>
    new RequestRefusal(
      413,
      `The post is larger than ${Math.round(limit / 1000)} kB. Send less at once.`,
    );
  if (Number(request.headers.get("content-length") ?? 0) > limit) throw tooLarge();
  const parts: Uint8Array[] = [];
  let size = 0;
  if (request.body)
    for await (const part of request.body as unknown as AsyncIterable<Uint8Array>) {
      size += part.length;
      if (size > limit) throw tooLarge();
      parts.push(part);
    }
  return Buffer.concat(parts);
}

/** A lone surrogate is half a sign: no text that can be kept. */
const HALF_SIGN = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/** Reads a JSON body. @throws RequestRefusal for another kind, one too large, or no JSON */
export async function readJson(request: Request, limit: number): Promise<unknown> {
  if (!/^application\/json\b/.test(request.headers.get("content-type") ?? ""))
    throw new RequestRefusal(415, "content-type: send application/json.");
  const text = (await readBytes(request, limit)).toString("utf8").replace(/^\ufeff/, "");
  try {
    return JSON.parse(text, (_, value: unknown) => {
      if (typeof value === "string" && HALF_SIGN.test(value)) throw new SyntaxError("half a sign");
      return value;
    });
  } catch {
    throw new RequestRefusal(400, "The body is no JSON. Send one JSON document.");
  }
}

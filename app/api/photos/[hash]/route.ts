import { allow, problem } from "@/server/auth/guard";
import { photoBytes } from "@/server/photos/store";

/** A kept photo. Its name is the hash of its bytes, so it never changes. */
export async function GET(_request: Request, { params }: { params: Promise<{ hash: string }> }) {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const jpeg = photoBytes((await params).hash);
  if (!jpeg) return problem(404, "There is no such photo.");
  return new Response(new Uint8Array(jpeg), {
    headers: {
      "content-type": "image/jpeg",
      "cache-control": "private, max-age=31536000, immutable",
      "x-content-type-options": "nosniff",
    },
  });
}

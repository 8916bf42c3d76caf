import { allow, problem } from "@/server/auth/guard";
import { RIGHTS } from "@/server/auth/rights";
import { readBytes, route } from "@/server/http/route";
import { MAX_PHOTO_BYTES, PhotoRefusal } from "@/server/photos/prepare";
import { keepPhoto } from "@/server/photos/store";

/** Keeps one photo: the body is the file itself. Answers with the name it is kept under. */
export const POST = route(async (request: Request) => {
  const who = await allow(RIGHTS["keep-photo"]);
  if ("refusal" in who) return who.refusal;
  try {
    return Response.json(await keepPhoto(await readBytes(request, MAX_PHOTO_BYTES), who.person));
  } catch (error) {
    if (error instanceof PhotoRefusal) return problem(415, error.message);
    throw error;
  }
});

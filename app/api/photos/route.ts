import { allow, problem, WRITERS } from "@/server/auth/guard";
import { PhotoRefusal } from "@/server/photos/prepare";
import { keepPhoto, readBody } from "@/server/photos/store";

/** Keeps one photo: the body is the file itself. Answers with the name it is kept under. */
export async function POST(request: Request) {
  const who = await allow(WRITERS);
  if ("refusal" in who) return who.refusal;
  try {
    return Response.json(await keepPhoto(await readBody(request.body), who.person));
  } catch (error) {
    if (error instanceof PhotoRefusal) return problem(415, error.message);
    throw error;
  }
}

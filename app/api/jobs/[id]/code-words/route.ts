import { allow } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { codeWords } from "@/server/jobs/code-words";

/** More codes than this no vehicle has at once. */
const MOST = 60;

/** What the shop has said of these codes before. */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
    const who = await allow("any", (await params).id);
    if ("refusal" in who) return who.refusal;
    const codes = new URL(request.url).searchParams.getAll("code").slice(0, MOST);
    return Response.json(codeWords(codes));
  },
);

import { route } from "@/server/http/route";
import { cabinViewOf } from "@/server/jobs/bay";
import { showCabin } from "@/server/jobs/cabin-asked";

/** The joined picture: where each camera sits and where its unit believes it to sit. */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) =>
    showCabin(
      request,
      (await params).id,
      cabinViewOf,
      "The unit has not joined its pictures yet. Let it learn first.",
    ),
);

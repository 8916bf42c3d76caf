import { z } from "zod";
import { bayMarks } from "@/core/job/bay-marks";
import { allow, problem } from "@/server/auth/guard";
import { bayDrawing } from "@/server/bays/drawing";
import { shopBays } from "@/server/bays/store";
import { route } from "@/server/http/route";
import { eventsAfter } from "@/server/jobs/log";
import { findJob } from "@/server/jobs/store";

const place = z.coerce.number().min(-1e5).max(1e5);
const askedSchema = z.object({
  bay: z.string().min(1).max(60),
  x: place,
  y: place,
  heading: z.coerce.number().min(-10).max(10),
  as: z.enum(["dxf", "svg"]),
});

/** A bay with what is marked on its floor for a job, the vehicle standing where it is asked for. */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
    const who = await allow("any");
    if ("refusal" in who) return who.refusal;
    const { id } = await params;
    const job = findJob(id);
    if (!job) return problem(404, "There is no such job. Go back to the list.");
    const asked = askedSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!asked.success)
      return problem(400, "Say where: bay, x, y in mm, heading in radians; as dxf or svg.");
    const bay = shopBays().find((b) => b.id === asked.data.bay);
    if (!bay) return problem(404, "bay: the shop has no such bay any more. Look at Owed again.");
    const { x: xMm, y: yMm, heading: headingRad, as } = asked.data;
    const marks = bayMarks(job.ground, eventsAfter(id), bay, { xMm, yMm, headingRad });
    return bayDrawing(bay, as, `${bay.id}-${job.number}`, marks);
  },
);

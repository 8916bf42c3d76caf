import { calibrationInHand, planFor, targetInHand, viewOf } from "@/core/job";
import { markOut, SCHOOLS, toDxf, toSvg, type SchoolId } from "@/core/setout";
import { allow, problem } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { eventsAfter } from "@/server/jobs/log";
import { findJob } from "@/server/jobs/store";
import { renderMarkOut } from "@/server/report/mark-out";

const TYPES = { pdf: "application/pdf", dxf: "image/vnd.dxf", svg: "image/svg+xml" } as const;

/** The mark-out of one way of setting out this job's board: to print, or as an open drawing. */
export const GET = route(
  async (request: Request, { params }: { params: Promise<{ id: string }> }) => {
    const who = await allow("any");
    if ("refusal" in who) return who.refusal;
    const { id } = await params;
    const job = findJob(id);
    if (!job) return problem(404, "There is no such job. Go back to the list.");
    const asked = new URL(request.url).searchParams;
    const as = asked.get("as") ?? "pdf";
    const way = asked.get("way") ?? "tapes";
    if (!Object.hasOwn(TYPES, as)) return problem(400, "as: ask for pdf, dxf or svg.");
    if (!Object.hasOwn(SCHOOLS, way) || way === "free")
      return problem(400, "way: this is no way of setting out that has an order.");
    const events = eventsAfter(id);
    const named = asked.get("calibration");
    const view = named ? viewOf(job.ground, named) : calibrationInHand(job.ground, events);
    const target = asked.get("target") ?? targetInHand(view, events).id;
    const plan = planFor(view, events, target);
    const drawn = markOut(plan, way as SchoolId);
    const body =
      as === "dxf"
        ? toDxf(drawn)
        : as === "svg"
          ? toSvg(drawn)
          : new Uint8Array(await renderMarkOut(plan, drawn, job.number, view.sheet));
    return new Response(body, {
      headers: {
        "content-type": TYPES[as as keyof typeof TYPES],
        "content-disposition": `${as === "pdf" ? "inline" : "attachment"}; filename="mark-out-${job.number}-${way}.${as}"`,
      },
    });
  },
);

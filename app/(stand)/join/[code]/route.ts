import { NextResponse } from "next/server";
import { startSession } from "@/server/auth/session";
import { StandRefusal, takeStandCode } from "@/server/stand/codes";

/** A phone joins at the stand: the code is used up, and the phone sees that one job. */
export async function GET(request: Request, { params }: { params: Promise<{ code: string }> }) {
  try {
    const { jobId, personId } = takeStandCode((await params).code);
    await startSession(personId, jobId);
    return NextResponse.redirect(new URL(`/jobs/${jobId}/stand`, originOf(request)));
  } catch (error) {
    if (!(error instanceof StandRefusal)) throw error;
    return new NextResponse(`<!doctype html><meta name="viewport" content="width=device-width"><title>Iridel</title><body style="font:24px/1.4 sans-serif;margin:15vh auto;max-width:20em;padding:0 1em">${error.message}`, { status: 410, headers: { "content-type": "text/html; charset=utf-8" } }); // prettier-ignore
  }
}

/** The address the phone itself used: the server may listen under another. */
const originOf = (request: Request): string => {
  const host = request.headers.get("x-forwarded-host") ?? request.headers.get("host") ?? new URL(request.url).host;
  return `${request.headers.get("x-forwarded-proto") ?? new URL(request.url).protocol.replace(":", "")}://${host}`;
};

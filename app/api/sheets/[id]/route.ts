import { documentFile } from "@/server/book/file";
import { sheetVersions } from "@/server/sheets/store";

/** One version of a sheet as a file. */
export const GET = (
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> =>
  documentFile(request, "sheet", async () => sheetVersions((await params).id));

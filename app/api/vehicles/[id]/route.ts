import { documentFile } from "@/server/book/file";
import { vehicleVersions } from "@/server/vehicles/store";

/** One version of a vehicle as a file. */
export const GET = (
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> =>
  documentFile(request, "vehicle", async () => vehicleVersions((await params).id));

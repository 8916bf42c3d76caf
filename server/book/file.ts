import { allow, problem } from "../auth/guard";

/**
 * Answers with one version of a document as a file, for keeping and for other shops; the newest
 * when none is named.
 */
export async function documentFile<T extends { id: string; version?: number }>(
  request: Request,
  noun: string,
  versions: () => Promise<T[]>,
): Promise<Response> {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const wanted = new URL(request.url).searchParams.get("version");
  const all = await versions();
  const doc = wanted ? all.find((d) => String(d.version ?? 1) === wanted) : all[0];
  if (!doc) return problem(404, `There is no such ${noun} or version. Go back to the list.`);
  return new Response(`${JSON.stringify(doc, null, 2)}\n`, {
    headers: {
      "content-type": "application/json; charset=utf-8",
      "content-disposition": `attachment; filename="${doc.id}-v${doc.version ?? 1}.json"`,
    },
  });
}

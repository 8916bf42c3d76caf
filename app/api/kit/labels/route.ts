import { allow } from "@/server/auth/guard";
import { route } from "@/server/http/route";
import { renderLabels } from "@/server/kit/labels";
import { listBoards, listTools } from "@/server/kit/store";
import { listInstruments, listStands } from "@/server/shop/store";

/** Labels for everything in the kit: a square code and the same in text. */
export const GET = route(async () => {
  const who = await allow("any");
  if ("refusal" in who) return who.refusal;
  const labels = [
    ...listBoards().map((b) => ({
      code: b.code,
      title: b.name,
      detail: `version ${b.version}${b.side === "either" ? "" : `, vehicle ${b.side} only`}`,
    })),
    ...listStands().map((s) => ({ code: s.id, title: s.name, detail: "stand" })),
    ...listInstruments().map((i) => ({
      code: i.id,
      title: i.name.replace(" (check overdue)", ""),
      detail: i.kind,
    })),
    ...listTools().map((t) => ({ code: t.id, title: t.name, detail: `serial ${t.serial}` })),
  ];
  const pdf = await renderLabels(labels);
  return new Response(new Uint8Array(pdf), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": 'inline; filename="iridel-labels.pdf"',
    },
  });
});

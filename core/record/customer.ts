import { isDone } from "@/core/sheet/methods";
import { changedAimWords } from "@/core/job/changed-aim";
import { SYSTEMS } from "@/core/owed";
import type { JobRecord } from "./schema";

/** What the owner of the vehicle is told, in plain words; every line is of the record. */
export type CustomerWords = {
  done: { name: string; say: string; good: boolean }[];
  /** What was owed and is not done, and what was taken as it is: each with its reason. */
  notProved: string[];
  settings: string[];
};

/** The plain words of one record. */
export function customerWords({
  calibrations,
  owed,
  checks,
  cameIn,
  codes,
  road,
}: JobRecord): CustomerWords {
  const because = owed.done.join(", ").toLowerCase();
  const done = calibrations.map(({ sheet, run, drives }) => {
    const road = drives?.at(-1)?.outcome === "learned";
    const name = SYSTEMS[sheet.appliesTo.system];
    // What is to be learned on the road as well is not done before it is.
    const good = isDone(sheet.method, { bay: run.status === "passed", road });
    return {
      name,
      good,
      say: good
        ? `Set up anew, because of: ${because}. The vehicle accepted it.${run.changedAim ? ` ${changedAimWords(run.changedAim)}` : ""}`
        : "Begun and not finished. Do not rely on what it does.",
    };
  });
  const elsewhere = owed.lines
    .filter((l) => l.done)
    .map((l) => ({ name: l.name, say: `Done: ${l.done!.note}.`, good: true }));
  return {
    done: [...done, ...elsewhere],
    notProved: [
      ...owed.lines.flatMap((l) =>
        l.outcome === "open"
          ? [`${l.name}: not done yet.`]
          : l.declined
            ? [`${l.name}: not done. ${l.declined.reason}.`]
            : [],
      ),
      ...checks
        .filter((c) => c.outcome === "accepted" || c.outcome === "blocks")
        .map((c) => {
          const became = c.outcome === "blocks" ? "stands in the way" : "left as it is";
          return `${c.ask}: ${became}${c.reason ? `. ${c.reason}` : ""}.`;
        }),
      ...(road ?? []).flatMap((t) =>
        t.result === "works"
          ? []
          : [`${t.name}: ${t.result === "fails" ? "does not work" : "not tried"}. ${t.remark}.`],
      ),
      ...(codes?.units ?? []).flatMap((u) =>
        u.codes
          .filter((c) => c.after === "stored" || c.after === "pending")
          .map((c) => `${u.name} keeps a fault: ${c.text}.${c.word ? ` ${c.word}.` : ""}`),
      ),
    ],
    settings: (cameIn?.settings ?? []).map((s) => `${s.name}: ${s.found}`),
  };
}

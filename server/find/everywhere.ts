import { fits } from "@/core/book";
import { SYSTEMS } from "@/core/owed";
import { targetsOf } from "@/core/sheet";
import { listJobs } from "../jobs/list";
import { listBoards, listTools } from "../kit/store";
import { listCheckedInstruments, listSheets, listStands, listVehicles } from "../shop/store";

/** One thing of the shop that a command box leads to. */
export type Found = {
  kind: "job" | "sheet" | "vehicle" | "kit";
  id: string;
  title: string;
  detail: string;
  href: string;
};

/** Of each kind, so that none crowds out the others. */
const MOST = 6;

const first = <T>(items: readonly T[], textOf: (item: T) => string, find: string): T[] =>
  items.filter((item) => fits(textOf(item), find)).slice(0, MOST);

/**
 * What a shop has of everything that fits the words: jobs, sheets, vehicles, kit; what stands first
 * is meant most likely.
 */
export function findEverywhere(find: string): Found[] {
  if (find.trim() === "") return [];
  const jobs = listJobs({ find, limit: MOST }).tickets.map((t): Found => ({
    kind: "job",
    id: t.id,
    title: `${t.number} · ${t.vehicle}`,
    detail: [t.plate || "no plate", t.customer].join(", "),
    href: `/jobs/${t.id}`,
  }));
  const sheets = first(
    listSheets(),
    (s) =>
      [
        s.title,
        s.id,
        SYSTEMS[s.appliesTo.system],
        s.source.name,
        ...targetsOf(s).map((t) => t.object.code),
      ].join(" "),
    find,
  ).map((s): Found => ({
    kind: "sheet",
    id: s.id,
    title: s.title,
    detail: `${SYSTEMS[s.appliesTo.system]}, version ${s.version}`,
    href: `/sheets/${s.id}`,
  }));
  const vehicles = first(
    listVehicles(),
    (v) =>
      [v.make, v.model, v.variant, v.vinStart, ...v.fitted.map((f) => SYSTEMS[f.system])].join(" "),
    find,
  ).map((v): Found => ({
    kind: "vehicle",
    id: v.id,
    title: `${v.make} ${v.model}`,
    detail: v.variant,
    href: `/vehicles/${v.id}`,
  }));
  const pieces = [
    ...listStands().map((s) => ({ id: s.id, name: s.name })),
    ...listCheckedInstruments().map((i) => ({ id: i.id, name: i.name })),
    ...listTools().map((t) => ({ id: t.id, name: t.name })),
    ...listBoards().map((b) => ({ id: b.code, name: b.name })),
  ];
  const kit = first(pieces, (p) => `${p.id} ${p.name}`, find).map((p): Found => ({
    kind: "kit",
    id: p.id,
    title: p.id,
    detail: p.name,
    href: `/kit?find=${encodeURIComponent(p.id)}`,
  }));
  // Who types the whole number of a thing means that thing.
  const exact = (f: Found): boolean => f.id.toLowerCase() === find.trim().toLowerCase();
  const kinds = [jobs, sheets, vehicles, kit];
  return kinds.toSorted((a, b) => Number(b.some(exact)) - Number(a.some(exact))).flat();
}

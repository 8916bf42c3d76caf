import type { OpenArchive } from "./form";

/** What an archive holds, in a few figures. */
export type ArchiveSummary = {
  number: number;
  vehicle: string;
  vin: string;
  takenInAt: string;
  /** How many times it was handed over. */
  version: number;
  lines: number;
  /** The heads on the reports that were given away. */
  shown: readonly { version: number; head: string }[];
  /** Lines whose personal part was erased on request. */
  erased: number;
  papers: number;
  photos: number;
};

export function summaryOf({ log, shown, erased }: OpenArchive): ArchiveSummary {
  const { vehicle, intake } = log.ground;
  return {
    number: log.number,
    vehicle: `${vehicle.make} ${vehicle.model}`,
    vin: intake.vin,
    takenInAt: log.createdAt,
    version: Math.max(0, ...log.documents.map((d) => d.version)),
    lines: log.lines.length,
    shown,
    erased,
    papers: log.documents.filter((d) => !d.erased).length,
    photos: log.photos.length,
  };
}

import { sharesOfRisk, type Verdict } from "@/core/setout";
import { formatChance } from "@/core/units";
import { Plumb, type Crowd, type Plumbed, type Room } from "./plumb";

/** Filled and cut like what is settled, framed, broken: told apart without colour. */
const LOOKS: Record<Verdict["kind"] | "suspect", { word: string; look: string }> = {
  set: { word: "Set", look: "stamp-set border-settled bg-settled text-paper" },
  move: { word: "Move", look: "border-act bg-sheet text-act" },
  read: { word: "Read", look: "border-dashed border-ink text-ink" },
  suspect: { word: "Suspect", look: "stamp-doubt border-loose pl-6 text-loose" },
};

/** More quantities than this share their room by what the verdict hangs on; more yet are many. */
const FEW = 4;
const SEVERAL = 8;
/** From this share of what could be outside on, a quantity is what the verdict hangs on. */
const RULES = 0.4;
/** Below this share one is safe. */
const SAFE = 0.04;
const GROW: Record<Room, number> = { large: 1.7, usual: 1.15, small: 0.8 };

/** On a phone they stand in rows; what the verdict hangs on takes two places. */
const GRIDS: Record<Crowd, string> = {
  few: "grid-cols-2 gap-x-4 sm:gap-5",
  several: "grid-cols-3 gap-x-3 sm:gap-4",
  many: "grid-cols-4 gap-x-2 sm:gap-4",
};

/** How much room each quantity has; alike where none of them stands out. */
export function roomsOf(quantities: readonly Plumbed[]): Room[] {
  const shares = sharesOfRisk(quantities);
  const even = 1 / quantities.length;
  return shares.map((share) =>
    share >= RULES && share > 1.2 * even
      ? "large"
      : quantities.length > FEW && share < SAFE
        ? "small"
        : "usual",
  );
}

/**
 * What is judged, legible from two metres: the verdict as one word, its chance, and every quantity
 * as a plumb line over what the sheet allows.
 */
export function VerdictPicture({
  kind,
  chance,
  why,
  minutes,
  quantities,
  lengths,
}: {
  kind: Verdict["kind"];
  chance: number;
  /** Why it is so, in a few words; a suspect reading is said instead of the verdict. */
  why: { id: Verdict["why"]; say: string };
  minutes: string | null;
  quantities: readonly Plumbed[];
  lengths: "mm" | "in";
}) {
  const { word, look } = LOOKS[why.id === "suspect" ? "suspect" : kind];
  const rooms = roomsOf(quantities);
  const crowd = quantities.length > SEVERAL ? "many" : quantities.length > FEW ? "several" : "few";
  return (
    <section
      aria-label="Verdict"
      className="flex flex-col gap-2 border-b border-hairline px-3 py-2 sm:flex-row sm:items-stretch sm:gap-5"
    >
      <div className="flex shrink-0 items-center gap-3 sm:w-[172px] sm:flex-col sm:items-start sm:justify-center sm:gap-1">
        <p
          className={`rounded-md border-[3px] px-3 py-1 text-[28px] font-semibold leading-none sm:w-full sm:py-2 sm:text-[34px] ${look}`}
          data-verdict={kind}
        >
          {word}
        </p>
        <p className="text-sm leading-tight text-soft">
          <span className="figure text-base text-ink" data-chance="">
            {formatChance(chance)}
          </span>{" "}
          {why.say}
          {minutes && `, ${minutes} to set`}
        </p>
      </div>
      <div className={`grid min-w-0 flex-1 gap-y-2 sm:flex ${GRIDS[crowd]}`}>
        {quantities.map((q, i) => (
          <div
            key={`${q.id}/${q.to ?? ""}`}
            className={`min-w-0 basis-0 sm:max-w-[340px] ${crowd !== "few" && rooms[i] === "large" ? "col-span-2" : ""}`}
            style={{ flexGrow: GROW[rooms[i]!] }}
          >
            <Plumb q={q} lengths={lengths} room={rooms[i]!} crowd={crowd} />
          </div>
        ))}
      </div>
    </section>
  );
}

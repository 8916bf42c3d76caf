import { quantitiesOf, quantityWords, type Judged, type Verdict } from "@/core/setout";
import { useSettings } from "../settings";
import { useMinutes } from "./use-minutes";
import { VerdictPicture } from "./verdict-picture";

const WHY: Record<Verdict["why"], string> = {
  "in-tolerance": "everything inside at once",
  outside: "surely outside",
  "off-centre": "known well enough to move",
  suspect: "a reading does not fit",
  "not-known": "not known well enough",
  unproved: "nothing read since it moved",
  owing: "not measured since it moved",
  unchecked: "a slip could still hide",
  unsolved: "the readings do not solve",
};

/** The verdict of the target in hand. */
export function VerdictStrip({ judged }: { judged: Judged }) {
  const { lengths } = useSettings();
  const { solution: s, verdict } = judged;
  const minutes = useMinutes(judged);
  const unread =
    verdict.why === "unproved" && !s.readings.some((r) => r.state === "doubt")
      ? s.readings.length === 0
        ? "nothing read yet"
        : "not all read yet"
      : null;
  return (
    <VerdictPicture
      kind={verdict.kind}
      chance={verdict.chance}
      why={{ id: verdict.why, say: unread ?? WHY[verdict.why] }}
      minutes={minutes}
      lengths={lengths}
      quantities={quantitiesOf(s).map((q) => {
        const { name, more, less } = quantityWords(q.id, s.plan.target);
        return { ...q, name, known: Number.isFinite(q.sigma), words: [more, less] };
      })}
    />
  );
}

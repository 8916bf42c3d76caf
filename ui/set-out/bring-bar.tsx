import { standAt, staysOf } from "@/core/job";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";

/**
 * The stand that is to carry this target stands at another place, maybe another calibration's: it is
 * brought here first, and what it was proved for there stands no longer.
 */
export function BringBar() {
  const { ground, events, target, write, me } = useJob();
  if (!target) return null;
  const stand = standAt(ground, events, target.id);
  const now = staysOf(ground, events).find(
    (s) => s.standId === stand.id && s.until === Infinity && s.target.id !== target.id,
  );
  return (
    <NextBar
      say={`Bring ${stand.id} to its place: ${target.name}.`}
      detail={
        now
          ? `It is at ${now.target.name} now. Once it goes, nothing proves that place any more: let the vehicle look there first.`
          : "Nothing stands there yet."
      }
    >
      {me.role !== "viewer" && (
        <Button look="act" size="large" onClick={() => write({ kind: "position", to: target.id })}>
          It stands there now
        </Button>
      )}
    </NextBar>
  );
}

import { rankCauses } from "@/core/guide/causes";
import { byTheVehicle, failure } from "@/tests/refusals";

import { told } from "./house";

/**
 * The ranking of causes beside Bayes' rule that is worked out with the vehicle's own pictures, over so
 * many refusals; it may name the true cause first at most five points less often.
 */
export function causes(many: number): void {
  let [own, bayes, apart] = [0, 0, 0];
  for (let n = 0; n < many; n++) {
    const f = failure(n);
    const ranked = rankCauses(f.evidence, f.answer);
    const truth = byTheVehicle(f, n);
    const best = [...truth].sort((a, b) => b[1] - a[1])[0]![0];
    if (ranked[0]!.cause === f.cause) own++;
    if (best === f.cause) bayes++;
    apart += ranked.reduce((s, r) => s + Math.abs(r.share - truth.get(r.cause)!), 0) / 2 / many;
  }
  const percent = (n: number): string => `${((100 * n) / many).toFixed(1)} %`;
  told(
    "causes of a refusal, ranked as well as by Bayes' rule",
    own >= bayes - 0.05 * many,
    `of ${many} first: by the ranking ${percent(own)}, by the rule on the vehicle itself ${percent(bayes)}; shares ${apart.toFixed(3)} apart`,
  );
}

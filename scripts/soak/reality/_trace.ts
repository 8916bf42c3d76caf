import { randomFrom } from "@/core/math/random";
import { nextAct, solveSetOut, agree, decideByThird, type SetOutEntry } from "@/core/setout";
import { planOf } from "@/tests/fixtures";
import { Bay, type Cause } from "/work/main/scripts/soak/reality/bay";
const [school, seed, sheet, causeText] = process.argv.slice(2);
const cause: Cause = JSON.parse(causeText ?? "{}");
const plan = { ...planOf(Number(sheet ?? 0), 0), school: school as any };
const bay = new Bay(plan, cause, randomFrom(7_000_000 + Number(seed)));
let entries: SetOutEntry[] = [];
const strike = (ids: readonly string[]) => {
  console.log("   strike", ids.join());
  entries = entries.filter((e) => !ids.includes(e.id));
};
for (let n = 0; n < 90; n++) {
  const { next, solution: s, verdict: v } = nextAct(solveSetOut(plan, entries));
  const q = s.plane
    ? s.plane.quantities
        .map(
          (x, i) =>
            `${x.id} ${(x.id === "twist" ? x.error * 57.3 : x.error).toFixed(2)}±${((x.id === "twist" ? 57.3 : 1) * Math.sqrt(s.plane!.covariance[i]![i]!)).toFixed(2)}`,
        )
        .join(" ")
    : "";
  console.log(
    n,
    v.kind,
    v.why,
    v.chance.toFixed(3),
    v.chanceIfNulled.toFixed(3),
    q,
    v.unchecked.length
      ? "weak:" + v.unchecked.map((id) => s.readings.find((r) => r.id === id)?.slotId ?? id).join()
      : "",
  );
  if (next.kind === "settle") {
    console.log("SET", bay.truth());
    break;
  }
  if (next.kind === "stuck") {
    console.log("  stuck", next.message);
    if (!next.leaveOut) break;
    strike(next.leaveOut.ids);
    continue;
  }
  if (next.kind === "move") {
    const { predicted, ...move } = next.move;
    const { after, ...m } = move as any;
    console.log("  MOVE", JSON.stringify(m));
    bay.move(move);
    entries.push({
      kind: "move",
      id: `m${n}`,
      move,
      rest: next.rest.map(({ predicted: _, ...m }) => m),
    });
    continue;
  }
  const { slot, sigma, anew, expected } = next.candidate;
  const shown = bay.read(slot.id, anew);
  console.log(
    "  read",
    slot.id,
    anew ? "ANEW" : "",
    shown.toFixed(4),
    "expected",
    expected.toFixed(4),
    "s",
    sigma.toFixed(4),
    next.again ? "again" : "",
    next.decides ? "decides" : "",
  );
  const byId = (id: string) => s.readings.find((r) => r.id === id)!;
  if (next.decides)
    strike(
      decideByThird([byId(next.decides[0]), byId(next.decides[1])], shown, sigma).map(
        (d) => d.strike,
      ),
    );
  const old = next.again && byId(next.again);
  if (old && !agree(old.shown, old.sigma, shown, sigma)) strike([old.id]);
  entries.push({ kind: "reading", id: `r${n}`, slotId: slot.id, shown, sigma, anew });
}

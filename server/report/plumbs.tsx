import { Path, Svg, View } from "@react-pdf/renderer";
import { quantityWords } from "@/core/setout";
import { targetOf, type Sheet } from "@/core/sheet";
import type { TargetRecord } from "@/core/record";
import { INK, styles, Text } from "./paper";

type Quantity = NonNullable<TargetRecord["settled"]>["quantities"][number];

const [W, H] = [110, 30];
const FLOOR = 27;
/** Points from the middle to a limit. */
const HALF = 26;
const SETTLED = "#1C6656";
const GREY = "#D9DADC";
const held = (x: number): number => Math.min(W - 4, Math.max(4, x));

/** One quantity as it was accepted: the bob by its error, the swing by what it was known to. */
function Plumb({ q }: { q: Quantity }) {
  const [half, middle] = [(q.upper - q.lower) / 2, (q.upper + q.lower) / 2];
  const at = (v: number): number => held(W / 2 + ((v - middle) / half) * HALF);
  const bob = at(q.error);
  const [left, right] = [-1.96, 1.96].map((z) => at(q.error + z * (q.sigma ?? 0)));
  return (
    <Svg width={W} height={H} viewBox={`0 0 ${W} ${H}`}>
      {q.sigma !== null && <Path d={`M${W / 2} 1L${left} ${FLOOR}H${right}Z`} fill={GREY} />}
      <Path d={`M2 ${FLOOR}H${W - 2}`} stroke={GREY} strokeWidth={0.8} />
      <Path
        d={`M${W / 2 - HALF} ${FLOOR - 6}V${FLOOR}H${W / 2 + HALF}V${FLOOR - 6}`}
        stroke={SETTLED}
        strokeWidth={1.6}
        fill="none"
      />
      <Path d={`M${W / 2} 1L${bob} 16`} stroke={INK} strokeWidth={0.8} />
      <Path d={`M${bob - 1.5} 15h3l1.6 3l-3.1 8l-3.1 -8z`} fill={INK} />
    </Svg>
  );
}

/** Every limited quantity of a target as a plumb line over what the sheet allows. */
export function Plumbs({ t, sheet }: { t: TargetRecord; sheet: Pick<Sheet, "setups"> }) {
  const limited = t.settled?.quantities.filter((q) => Number.isFinite(q.upper - q.lower)) ?? [];
  if (limited.length === 0) return null;
  const target = targetOf(sheet, t.id);
  return (
    <View wrap={false} style={{ marginVertical: 6 }}>
      <View style={{ flexDirection: "row", flexWrap: "wrap", gap: 14 }}>
        {limited.map((q) => (
          <View key={`${q.id}/${q.to ?? ""}`}>
            <Text style={styles.soft}>
              {quantityWords(q.id as Parameters<typeof quantityWords>[0], target).name}
            </Text>
            <Plumb q={q} />
          </View>
        ))}
      </View>
      <Text style={{ ...styles.soft, fontSize: 7 }}>
        Drawn as a plumb line: the bob hangs by the error, the grey is its 95 % swing, the heavy
        floor is what the sheet allows.
      </Text>
    </View>
  );
}

import { CODE_CHANGES, UNIT_CHANGES, type UnitRow } from "@/core/scan";
import { Mark, type MarkState } from "../primitives/marks";

const MARKS: Record<UnitRow["codes"][number]["change"], MarkState> = {
  gone: "settled",
  stayed: "loose",
  new: "doubt",
  unread: "loose",
};

/**
 * Every control unit with what it has stored, and what became of that; those with nothing to say in one
 * line at the end.
 *
 * @param changes false where there is one reading only: then its state is all that is said of a code
 */
export function CodeTable({
  units,
  changes = true,
}: {
  units: readonly UnitRow[];
  changes?: boolean;
}) {
  const quiet = units.filter((u) => u.codes.length === 0 && u.change === "answers");
  const loud = units.filter((u) => !quiet.includes(u));
  return (
    <>
      <table className="w-full border-collapse text-left text-base">
        <tbody>
          {loud.flatMap((u) => [
            ...(u.change === "answers"
              ? []
              : [
                  <tr key={u.id} className="border-b border-dashed border-hairline">
                    <td className="py-2 pr-3">
                      <Mark
                        state={
                          u.change === "found"
                            ? "settled"
                            : u.change === "not-fitted"
                              ? "none"
                              : "doubt"
                        }
                        size={12}
                      />
                    </td>
                    <th className="py-2 pr-4 font-semibold" colSpan={2}>
                      {u.name}
                    </th>
                    <td className="py-2 text-right text-soft">{UNIT_CHANGES[u.change]}</td>
                  </tr>,
                ]),
            ...u.codes.map((c) => (
              <tr key={u.id + c.code} className="border-b border-dashed border-hairline">
                <td className="py-2 pr-3">
                  <Mark state={MARKS[c.change]} size={12} />
                </td>
                <th className="figure py-2 pr-4 font-semibold">{c.code}</th>
                <td className={`w-full py-2 pr-4 ${c.change === "gone" ? "text-soft" : ""}`}>
                  {u.name}: {c.text}
                </td>
                <td className="py-2 text-right text-soft sm:whitespace-nowrap">
                  {c.change !== "gone" && (c.after ?? c.before)}
                  {changes && c.change !== "gone" && ", "}
                  {changes && CODE_CHANGES[c.change]}
                </td>
              </tr>
            )),
          ])}
        </tbody>
      </table>
      {quiet.length > 0 && (
        <p className="text-base text-soft">
          Nothing stored, answering: {quiet.map((u) => u.name).join(", ")}.
        </p>
      )}
    </>
  );
}

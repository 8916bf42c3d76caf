import {
  boardErrors,
  guideErrors,
  turnedErrors,
  type GuideError,
  type SpacePoint,
} from "@/core/guide";
import {
  isByHand,
  nominalTarget,
  sideOf,
  wantedHeight,
  type PlanPose,
  type SetOutSolution,
} from "@/core/setout";
import type { Sheet } from "@/core/sheet";
import { marksOf, type FloorPoint, type MatForm, type Mount } from "@/core/surround";
import { degToRad } from "@/core/units";
import { sensorMount } from "@/core/vehicle";
import { isRead, MeaningTable, useLengths } from "./rows";

/** A mat drawn aside, and a camera turned where it sits: what a slip does. */
const SLIP_MM = 20;
const TURN_RAD = degToRad(0.5);
/** Where guide lines are looked at: from the bumper back, or from the camera out. */
const AT_MM = [1000, 3000, 5000];

/** Guide lines of a rear or a side camera: how wrong they are drawn after a mat that lay wrong. */
export function GuideMeaning({ s, sheet }: { s: SetOutSolution; sheet: Sheet }) {
  const { mm, far: metres } = useLengths();
  const { vehicle, target } = s.plan;
  const rear = sheet.appliesTo.system !== "side-camera";
  const side = sideOf(target);
  const sensor = vehicle.sensors?.find(
    (x) => x.system === sheet.appliesTo.system && (rear || x.yMm * side > 0),
  );
  if (!sensor)
    return (
      <p className="text-lg">
        The vehicle’s book has no place of this camera: enter it under Vehicles, and what an error
        would do can be worked out.
      </p>
    );
  const mount: Mount = sensorMount(sensor);
  const bumper = vehicle.wheelbaseMm + vehicle.frontOverhangMm - vehicle.lengthMm;
  const lines = AT_MM.map((far): FloorPoint =>
    rear ? [bumper - far, 0] : [sensor.xMm - 1500, sensor.yMm + side * far * 0.6],
  );
  const wanted = nominalTarget(s.plan);
  const shifted = (ahead: number, left: number, turn = 0): PlanPose => ({
    xMm: wanted.xMm + ahead,
    yMm: wanted.yMm + left,
    headingRad: wanted.headingRad + turn,
  });
  const board = !isByHand(target);
  const [thing, slipWays] = board ? (["board", "stands"] as const) : (["mat", "lies"] as const);
  const { aheadMm = 0, lengthMm = 0, widthMm } = target.object;
  const form: MatForm = { aheadMm, lengthMm, widthMm };
  const marks = (truly: PlanPose) => {
    const [a, b] = [marksOf(wanted, form), marksOf(truly, form)];
    return a.map((w, i) => ({ wanted: w, truly: b[i]! }));
  };
  const figures = (errors: GuideError[]): string[][] =>
    errors.map(({ offMm: [ahead, left] }) => {
      const parts = [
        Math.abs(left) < 0.5 ? "" : `${mm(left)} ${left > 0 ? "left" : "right"}`,
        Math.abs(ahead) < 0.5 ? "" : `${mm(ahead)} ${ahead > 0 ? "ahead" : "back"}`,
      ].filter(Boolean);
      return parts.length > 0 ? parts : [mm(0)];
    });
  const height = target.placement.heightMm;
  const centre = (at: PlanPose, upMm: number): SpacePoint => [at.xMm, at.yMm, height + upMm];
  const row = (name: string, at: PlanPose, { now = false, upMm = 0 } = {}) => ({
    case: name,
    now,
    figures: figures(
      board
        ? boardErrors(mount, { wanted: centre(wanted, 0), truly: centre(at, upMm) }, lines)
        : guideErrors(mount, marks(at), lines),
    ),
  });
  const upMm = s.scalars.height.value - wantedHeight(s.plan);
  const known = isRead(s)
    ? [
        row(
          `as the ${thing} ${slipWays} now`,
          shifted(s.aim!.alongMm, s.aim!.acrossMm, s.aim!.twistRad),
          { now: true, upMm: board && Number.isFinite(s.scalars.height.variance) ? upMm : 0 },
        ),
      ]
    : [];
  return (
    <>
      <p className="mb-4 max-w-[70ch] text-lg leading-snug">
        The unit takes the {thing} for where it should {board ? "stand" : "lie"}, and draws its
        lines by that. So far a line for a place on the floor lies beside that place, worked out
        from the camera’s own projection.
      </p>
      <MeaningTable
        columns={AT_MM.map((far) =>
          rear ? `Line ${metres(far)} behind` : `Place ${metres(far * 0.6)} out`,
        )}
        rows={[
          ...known,
          row(`${thing} ${mm(SLIP_MM)} to vehicle left`, shifted(0, SLIP_MM)),
          row(`${thing} ${mm(SLIP_MM)} too far ahead`, shifted(SLIP_MM, 0)),
          board
            ? row(`board ${mm(SLIP_MM)} high`, wanted, { upMm: SLIP_MM })
            : row("mat turned by 0.5°", shifted(0, 0, TURN_RAD)),
          {
            case: "camera 0.5° low since",
            figures: figures(turnedErrors(mount, { downRad: TURN_RAD }, lines)),
          },
          {
            case: "camera 0.5° aside since",
            figures: figures(turnedErrors(mount, { leftRad: TURN_RAD }, lines)),
          },
        ]}
      />
      <p className="mt-4 text-base text-soft">
        {board
          ? "Worked out with a unit that takes the camera for turned by as much as it sees the board elsewhere. "
          : "Worked out with a unit that takes each camera’s place and aim from the marks it sees. "}
        Another unit may share the error out otherwise.
      </p>
    </>
  );
}

import { DRIVE_START, qualify, type DriveProgress } from "@/core/drive/qualify";
import { islandDrive, rules } from "@/tests/island-drive";
import { told } from "./house";

/**
 * Planned drives of the island beside so many that are driven second by second: the mean of their
 * minutes within five in a hundred; of the band that four in five should keep to, 75 to 85; and as many
 * that learn as was said, within five.
 */
export function drives(many: number): void {
  for (const [hour, rain] of [
    [8, 0],
    [11, 0],
    [14, 0],
    [11, 0.3],
  ] as const) {
    const { plan, drive } = islandDrive(Date.UTC(2026, 10, 3, hour), { rain });
    const [from, to] = plan.band;
    let [sum, inside, done] = [0, 0, 0];
    for (let n = 0; n < many; n++) {
      let [progress, seconds]: [DriveProgress, number] = [DRIVE_START, 0];
      for (const { sample } of drive(`soak/${hour}/${n}`)) {
        progress = qualify(rules, progress, sample);
        seconds++;
      }
      sum += seconds;
      if (progress.status === "done") done++;
      if (seconds >= from && seconds <= to) inside++;
    }
    const off = sum / many / plan.seconds - 1;
    const [share, learned] = [inside / many, done / many];
    const percent = (x: number, digits = 1): string => `${(100 * x).toFixed(digits)} %`;
    const good =
      Math.abs(off) < 0.05 &&
      share >= 0.75 &&
      share <= 0.85 &&
      Math.abs(learned - plan.chance) < 0.05;
    told(
      `drives planned for ${hour}:00 with rain ${percent(rain, 0)} of the time, ${many} of them driven`,
      good,
      `mean ${percent(off, 2)} off the plan’s ${(plan.seconds / 60).toFixed(1)} min; ${percent(share)} inside the band of four in five; ${percent(learned)} learned where ${percent(plan.chance)} was planned`,
    );
  }
}

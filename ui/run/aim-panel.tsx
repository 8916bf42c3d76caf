"use client";

import type { AimState } from "@/core/run";
import type { SheetStep } from "@/core/sheet";
import { useAimAdvice } from "./aim-step";
import { CabinDisplayPanel } from "./cabin-display";

/** The display of the camera that is being aimed, with where its mark will stand. */
export function AimPanel({
  step,
  aim,
}: {
  step: Extract<SheetStep, { kind: "aim" }>;
  aim: AimState | undefined;
}) {
  const advice = useAimAdvice(step, aim);
  return (
    <CabinDisplayPanel step={step} then={advice && !("problem" in advice) ? advice.then : null} />
  );
}

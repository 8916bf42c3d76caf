import { expose } from "comlink";
import { gains, roadOutcome, type BoardKnowledge, type Setting } from "@/core/camera";
import { chanceByTolerance, type ToleranceCase } from "@/core/setout";

const FACTORS = Array.from({ length: 20 }, (_, i) => (i + 1) / 10);

// Tens of thousands of learnings: beside the page, so that the page stays quick.
const road = {
  outcome: (setting: Setting, known: BoardKnowledge, tolerance: ToleranceCase) => ({
    outcome: roadOutcome(setting, known),
    buys: gains(setting, known.mean).filter((g) => g.laneMm > 5 || g.rangeMm > 200),
    curve: chanceByTolerance(tolerance, FACTORS),
  }),
};
export type Road = typeof road;
expose(road);

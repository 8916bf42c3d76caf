export { boardSchema, type Board } from "./board";
export { inForce, isOverdue, WIDENED, type CheckedInstrument } from "./instrument";
export { judgeZero, ZERO_READINGS, type ZeroJudgement } from "./zero";
export { instrumentSchema } from "./schema";
export { KIT_FIELDS, KIT_KINDS, kitFields, kitProblems, type KitField, type KitKind } from "./edit";
export { isOver, toolEnds, toolEndWords, type ShopTool, type ToolEnd } from "./tool";
export { checkBoard, type BoardFinding, type WantedBoard } from "./hang";

import { EventEmitter } from "node:events";

/** A figure as an instrument shows it now: passed on to who watches, and never kept. */
export type LiveFigure = { targetId: string; slotId: string; shown: number };

const bell = ((globalThis as { iridelFigures?: EventEmitter }).iridelFigures ??=
  new EventEmitter().setMaxListeners(0));

export const showFigure = (jobId: string, figure: LiveFigure): void =>
  void bell.emit(jobId, figure);

/** Calls back with every figure that is shown for a job. @returns how to stop listening */
export function onFigure(jobId: string, listen: (figure: LiveFigure) => void): () => void {
  bell.on(jobId, listen);
  return () => void bell.off(jobId, listen);
}

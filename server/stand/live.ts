import { EventEmitter } from "node:events";

/** Says within this server that a job's log has grown. One emitter, whichever bundle asks first. */
const bell = ((globalThis as { iridelBell?: EventEmitter }).iridelBell ??=
  new EventEmitter().setMaxListeners(0));

export const announce = (jobId: string): void => void bell.emit(jobId);

/** Calls back whenever the job's log has grown. @returns how to stop listening */
export function onGrowth(jobId: string, listen: () => void): () => void {
  bell.on(jobId, listen);
  return () => void bell.off(jobId, listen);
}

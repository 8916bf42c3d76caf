import { EventEmitter } from "node:events";

/** Says within this server that a person's sessions have ended, so that open streams end too. */
const bell = ((globalThis as { iridelEnded?: EventEmitter }).iridelEnded ??=
  new EventEmitter().setMaxListeners(0));

export const announceEnded = (personId: string): void => void bell.emit(personId);

/** Calls back when a person's sessions end. @returns how to stop listening */
export function onEnded(personId: string, listen: () => void): () => void {
  bell.on(personId, listen);
  return () => void bell.off(personId, listen);
}

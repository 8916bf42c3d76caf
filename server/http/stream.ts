import { onEnded } from "../auth/bell";

/** What a stream is given to write with: raw lines of server-sent events, or the end of it. */
export type Pen = {
  put: (words: string) => void;
  stop: () => void;
  /** Does something again and again until the end; what throws ends the stream, not the server. */
  every: (ms: number, work: () => void) => void;
};

/** One message of data. */
export const dataOf = (value: unknown): string => `data: ${JSON.stringify(value)}\n\n`;

/**
 * Server-sent events for one person, until the page goes, the pen stops, or the person's session
 * ends.
 *
 * @param isOver whether the end of one of the person's sessions is the end of this one
 * @param begin writes, and answers what is to be undone at the end
 */
export function eventStream(
  request: Request,
  personId: string,
  begin: (pen: Pen) => () => void,
  isOver: () => boolean = () => true,
): Response {
  const text = new TextEncoder();
  let stop = (): void => undefined;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      let undo = (): void => undefined;
      let open = true;
      const timers: NodeJS.Timeout[] = [];
      const noMore = onEnded(personId, () => isOver() && stop());
      stop = () => {
        if (!open) return;
        open = false;
        timers.forEach(clearInterval);
        undo();
        noMore();
        try {
          controller.close();
        } catch {
          // Already closed from the other side.
        }
      };
      const put = (words: string): void => {
        try {
          if (open) controller.enqueue(text.encode(words));
        } catch {
          stop();
        }
      };
      const every = (ms: number, work: () => void): void => {
        const guarded = (): void => {
          try {
            work();
          } catch (error) {
            console.error("A stream ended by an error:", error);
            stop();
          }
        };
        if (open) timers.push(setInterval(guarded, ms));
      };
      request.signal.addEventListener("abort", stop);
      put("retry: 1500\n\n");
      undo = begin({ put, stop, every });
      // It ended while it began: nobody undid it then.
      if (!open) undo();
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    headers: { "content-type": "text/event-stream", "cache-control": "no-store" },
  });
}

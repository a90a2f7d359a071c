/** Server-sent events: a row as it is now and at every change, until it is over or the page goes away. */
import type { Request, Response } from 'express';

/** Proxies close connections that say nothing. */
const KEEP_OPEN_MS = 15_000;

/** Streams that stand open: a server that stops ends them, and pages ask again. */
const open = new Set<Response>();
export function endStreams(): void {
  for (const res of open) res.end();
}

export async function streamRow<T>(
  req: Request,
  res: Response,
  watch: (tell: (row: T) => void) => Promise<() => void>,
  isOver: (row: T) => boolean,
): Promise<void> {
  let last = '';
  let off: (() => void) | undefined;
  const beat = setInterval(() => res.headersSent && res.write(': still here\n\n'), KEEP_OPEN_MS);
  open.add(res);
  const end = () => {
    open.delete(res);
    clearInterval(beat);
    off?.();
  };
  req.on('close', end);
  try {
    off = await watch((row) => {
      const text = JSON.stringify(row);
      if (text === last || res.writableEnded) return;
      last = text;
      if (!res.headersSent)
        res.writeHead(200, {
          'content-type': 'text/event-stream',
          'cache-control': 'no-store',
          connection: 'keep-alive',
        });
      res.write(`data: ${text}\n\n`);
      if (isOver(row)) {
        end();
        res.end();
      }
    });
  } catch (error) {
    end();
    throw error;
  }
  if (res.writableEnded) end();
}

import type { EventEmitter } from 'node:events';
import type { Request, Response } from 'express';

const HEARTBEAT_MS = 20_000;

/**
 * Opens a line of server-sent events that begins with a hello and stays open, a heartbeat at a time. `closed` runs
 * when the browser hangs up. It ends with the session it was opened in.
 */
export function openEventStream(
  req: Request,
  res: Response,
  sessionEnds: EventEmitter,
  hello: unknown,
  closed: () => void,
): void {
  const { session, sessionID } = req;
  res.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store, no-transform',
    'x-accel-buffering': 'no',
  });
  res.write(`retry: 1000\nevent: hello\ndata: ${JSON.stringify(hello)}\n\n`);
  const end = (): void => void res.end();
  sessionEnds.once(sessionID, end);
  const heartbeat = setInterval(() => {
    res.write(': still here\n\n');
    session.reload((gone: unknown) => {
      if (gone) end();
    });
  }, HEARTBEAT_MS);
  req.on('close', () => {
    clearInterval(heartbeat);
    sessionEnds.off(sessionID, end);
    closed();
  });
}

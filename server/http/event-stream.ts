import type { Request, Response } from 'express';

const HEARTBEAT_MS = 20_000;

/**
 * Opens a line of server-sent events that begins with a hello and stays open, a heartbeat at a time. `closed` runs
 * when the browser hangs up.
 */
export function openEventStream(req: Request, res: Response, hello: unknown, closed: () => void): void {
  res.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store, no-transform',
    'x-accel-buffering': 'no',
  });
  res.write(`retry: 1000\nevent: hello\ndata: ${JSON.stringify(hello)}\n\n`);
  const heartbeat = setInterval(() => res.write(': still here\n\n'), HEARTBEAT_MS);
  req.on('close', () => {
    clearInterval(heartbeat);
    closed();
  });
}

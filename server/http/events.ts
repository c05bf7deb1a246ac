import type { RequestHandler } from 'express';
import type { Context } from '../context';
import { Refusal } from '../problem';

const HEARTBEAT_MS = 20_000;

/** Server-sent events: what changed, told to every open browser once it is on the disk. */
export function eventsHandler(context: Context): RequestHandler {
  return (req, res) => {
    if (!req.session.person) throw new Refusal('notSignedIn', 'Come in first.');
    res.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store, no-transform', 'x-accel-buffering': 'no' });
    res.write('retry: 1000\nevent: hello\ndata: {}\n\n');
    const stop = context.changes.listen((topics) => res.write(`event: changed\ndata: ${JSON.stringify({ topics })}\n\n`));
    const heartbeat = setInterval(() => res.write(': still here\n\n'), HEARTBEAT_MS);
    req.on('close', () => {
      clearInterval(heartbeat);
      stop();
    });
  };
}

import type { RequestHandler } from 'express';
import type { Context } from '../shared/context';
import { Refusal } from '../shared/problem';
import { openEventStream } from './event-stream';

/** Server-sent events: what changed, told to every open browser once it is on the disk. */
export function eventsHandler(context: Context): RequestHandler {
  return (req, res) => {
    if (!req.session.person) throw new Refusal('notSignedIn', $localize`Come in first.`);
    const stop = context.changes.listen((topics) =>
      res.write(`event: changed\ndata: ${JSON.stringify({ topics })}\n\n`),
    );
    openEventStream(req, res, context.sessionEnds, { now: context.clock().toISOString() }, stop);
  };
}

import type { ErrorRequestHandler, RequestHandler } from 'express';
import { FileDamagedError } from '../db/kept-files';
import type { Context } from '../shared/context';
import { Refusal, refusalFromDatabase } from '../shared/problem';

const LOOPBACK = ['localhost', '127.0.0.1', '::1'];

/**
 * It answers to its own names only: a page elsewhere must not reach it by a name of its own that leads here (DNS
 * rebinding). @param names besides those of this computer for itself
 */
export function onlyOwnNames(names: readonly string[]): RequestHandler {
  const known = new Set([...LOOPBACK, ...names]);
  const detail =
    names.length === 0
      ? $localize`This server answers on this computer only. Open it as http://localhost with its port.`
      : $localize`This server doesn’t go by that name. Open it as ${names.slice(0, 3).join($localize` or `)}, or name this one in HOSTS.`;
  return (req, _res, next) => {
    const name = (req.headers.host ?? '')
      .toLowerCase()
      .replace(/:\d+$/, '')
      .replace(/^\[(.*)\]$/, '$1');
    next(known.has(name) ? undefined : new Refusal('otherSite', detail));
  };
}

/** A change asked for by another site's page is refused, whatever cookie it carries. */
export function onlyOwnPages(): RequestHandler {
  return (req, _res, next) => {
    const site = req.headers['sec-fetch-site'];
    const own = site === undefined || site === 'same-origin' || site === 'none';
    next(
      own || req.method === 'GET' || req.method === 'HEAD'
        ? undefined
        : new Refusal(
            'otherSite',
            $localize`That was asked by another site’s page. Open Vestigia itself and do it there.`,
          ),
    );
  };
}

export function noSuchCall(): RequestHandler {
  return () => {
    throw new Refusal('notFound', $localize`There is nothing at this address.`);
  };
}

/** Every refusal leaves as problem details; anything unexpected is logged whole and told without its insides. */
export function problems({ log, database }: Context): ErrorRequestHandler {
  return (error: unknown, req, res, next) => {
    if (res.headersSent) {
      next(error);
      return;
    }
    const refusal = asRefusal(error);
    if (!refusal) {
      log.error({ err: error, method: req.method, path: req.path }, 'unexpected');
      void database.probe();
    }
    const answer = (
      refusal ??
      new Refusal(
        'broken',
        $localize`Something broke in the server. Nothing was changed; try again, and if it stays, restart the server.`,
      )
    ).toProblem();
    res.status(answer.status).type('application/problem+json').send(JSON.stringify(answer));
  };
}

function asRefusal(error: unknown): Refusal | undefined {
  if (error instanceof FileDamagedError) return new Refusal('notFound', error.message);
  const known = refusalFromDatabase(error);
  if (known instanceof Refusal) return known;
  const type = (error as { type?: unknown } | null)?.type;
  if (type === 'entity.too.large')
    return new Refusal('tooLarge', $localize`That is more than this call takes. Send less at once.`);
  if (type === 'entity.parse.failed' || type === 'encoding.unsupported' || type === 'charset.unsupported')
    return new Refusal('unreadable', $localize`What was sent is not readable JSON.`);
  // A body that was packed and can’t be unpacked, or was cut off: whoever reads bodies gives it a status of its kind.
  const { status } = (error ?? {}) as { status?: unknown };
  if (error instanceof URIError || (typeof status === 'number' && status >= 400 && status < 500))
    return new Refusal('unreadable', $localize`That could not be read. Try again.`);
  return undefined;
}

import { gzipSync } from 'node:zlib';
import type { Request, Response } from 'express';

/** A large reply that many ask for and few change: written out and packed once, sent as it is until it changes. */
export class Prepared<T> {
  private json: Buffer | undefined;
  private packed: Buffer | undefined;

  constructor(readonly value: T) {}

  send(req: Request, res: Response): void {
    this.json ??= Buffer.from(JSON.stringify(this.value));
    res.type('application/json').setHeader('vary', 'accept-encoding');
    if (req.acceptsEncodings('gzip') !== 'gzip') {
      res.setHeader('content-encoding', 'identity');
      res.send(this.json);
      return;
    }
    this.packed ??= gzipSync(this.json, { level: 4 });
    res.setHeader('content-encoding', 'gzip');
    res.send(this.packed);
  }
}

import { setImmediate, setTimeout } from 'node:timers/promises';
import type { RequestHandler } from 'express';
import onHeaders from 'on-headers';

/** So long at most does work behind an answer stand still: it comes on even where somebody always asks. */
const PATIENCE_MS = 150;
/** As long as this nobody asked: somebody who goes from page to page asks more often. */
const LULL_MS = 1000;

/** Who is being answered just now, so that long work behind them lets them go first. */
export class Answering {
  private asking = 0;
  private waiting: (() => void)[] = [];
  private lastMs = -Infinity;

  constructor(private readonly patienceMs = PATIENCE_MS) {}

  /** Counts a request until its answer begins: what is then sent for minutes holds nobody up. */
  readonly count: RequestHandler = (_req, res, next) => {
    let isOver = false;
    const over = (): void => {
      if (isOver) return;
      isOver = true;
      res.off('close', over);
      this.asking -= 1;
      this.lastMs = performance.now();
      if (this.asking === 0) for (const go of this.waiting.splice(0)) go();
    };
    this.asking += 1;
    onHeaders(res, over);
    res.once('close', over);
    next();
  };

  /** Between two pieces of long work: others are served first. */
  async first(): Promise<void> {
    await setImmediate();
    if (this.asking === 0) return;
    const over = new AbortController();
    const idle = new Promise<void>((go) => this.waiting.push(go));
    await Promise.race([
      idle,
      setTimeout(this.patienceMs, undefined, { ref: false, signal: over.signal }).catch(() => undefined),
    ]);
    over.abort();
  }

  /** Waits until nobody has asked for a while: for what would hold up the next one long, and is wanted by nobody yet. */
  async lull(signal: AbortSignal): Promise<void> {
    while (this.asking > 0 || performance.now() - this.lastMs < LULL_MS)
      await setTimeout(LULL_MS / 4, undefined, { ref: false, signal });
  }
}

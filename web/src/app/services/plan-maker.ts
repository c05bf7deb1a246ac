import { DestroyRef, Injectable, inject, signal } from '@angular/core';
import type { HelpTried, PlannedHouse } from '@vestigia/core';
import type { HelpAsk, HelpTold, PlanAsk, PlanTold } from './plan.worker';

/** Makes plans in a worker of its own. What is asked anew ends what was asked before. */
@Injectable()
export class PlanMaker {
  /** The best so far; nothing before there is one. */
  readonly found = signal<PlannedHouse | undefined>(undefined);
  readonly isAtWork = signal(false);
  readonly failed = signal(false);
  private worker: Worker | undefined;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  make(ask: PlanAsk): void {
    this.stop();
    this.isAtWork.set(true);
    this.failed.set(false);
    const worker = newWorker();
    worker.onmessage = ({ data }: MessageEvent<PlanTold>) => {
      this.found.set(data.found);
      if (data.isLast) this.stop();
    };
    worker.onerror = () => {
      this.stop();
      this.failed.set(true);
    };
    worker.postMessage(ask);
    this.worker = worker;
  }

  /** What would let a late lot be done by its day; asked beside whatever plan is being made. */
  help(ask: HelpAsk): Promise<readonly HelpTried[]> {
    const worker = newWorker();
    return new Promise((done, fail) => {
      worker.onmessage = ({ data }: MessageEvent<HelpTold>) => {
        worker.terminate();
        done(data.helps);
      };
      worker.onerror = (event) => fail(new Error(event.message));
      worker.postMessage(ask);
    });
  }

  /** Stays with the best so far. */
  stop(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.isAtWork.set(false);
  }
}

const newWorker = (): Worker => new Worker(new URL('./plan.worker', import.meta.url), { type: 'module' });

import { DestroyRef, Injectable, inject, signal } from '@angular/core';
import type { PlannedHouse } from '@vestigia/core';
import type { PlanAsk, PlanTold } from './plan.worker';

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
    const worker = new Worker(new URL('./plan.worker', import.meta.url), { type: 'module' });
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

  /** Stays with the best so far. */
  stop(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.isAtWork.set(false);
  }
}

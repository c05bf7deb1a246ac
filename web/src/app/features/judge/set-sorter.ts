import { DestroyRef, Injectable, inject } from '@angular/core';
import type { Sets } from '@vestigia/core';
import type { SetsAsk } from './sets.worker';

/** Sorts pieces into sets in a worker of its own. */
@Injectable()
export class SetSorter {
  private worker: Worker | undefined;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.worker?.terminate());
  }

  sort(ask: SetsAsk): Promise<Sets> {
    const worker = (this.worker ??= new Worker(new URL('./sets.worker', import.meta.url), { type: 'module' }));
    return new Promise((done, fail) => {
      worker.onmessage = ({ data }: MessageEvent<Sets>) => done(data);
      worker.onerror = (event) => fail(new Error(event.message));
      worker.postMessage(ask);
    });
  }
}

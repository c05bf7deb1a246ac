import { DestroyRef, Injectable, inject } from '@angular/core';
import type { ReorderAnswer, ReorderAsk } from '@vestigia/core';
import { Observable } from 'rxjs';

/** Asks what earlier lots say, in a worker of its own; whoever leaves, or asks anew, ends what was being worked out. */
@Injectable()
export class ReorderTeller {
  private worker: Worker | undefined;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.worker?.terminate());
  }

  tell(ask: ReorderAsk): Observable<ReorderAnswer> {
    return new Observable((heard) => {
      const worker = new Worker(new URL('./reorder.worker', import.meta.url), { type: 'module' });
      this.worker = worker;
      worker.onmessage = ({ data }: MessageEvent<ReorderAnswer>) => {
        heard.next(data);
        heard.complete();
      };
      worker.onerror = (event) => heard.error(new Error(event.message));
      worker.postMessage(ask);
      return () => worker.terminate();
    });
  }
}

import { Injectable } from '@angular/core';
import type { Review } from '@vestigia/core';
import { Observable } from 'rxjs';
import type { ReviewAsk } from './review.worker';

/** Looks over what was foretold, in a worker of its own; whoever leaves ends what was being worked out. */
@Injectable()
export class RecordReviewer {
  /** `null`: too little was read. */
  review(ask: ReviewAsk): Observable<Review | null> {
    return new Observable((heard) => {
      const worker = new Worker(new URL('./review.worker', import.meta.url), { type: 'module' });
      worker.onmessage = ({ data }: MessageEvent<Review | null>) => {
        heard.next(data);
        heard.complete();
      };
      worker.onerror = (event) => heard.error(new Error(event.message));
      worker.postMessage(ask);
      return () => worker.terminate();
    });
  }
}

import { Injectable } from '@angular/core';
import type { MatchQuestion, MatchQuestions } from '@vestigia/core';
import { Observable } from 'rxjs';

/**
 * Asks the match, in a worker. One that has answered is asked again, since it still knows what it learnt; one that is at
 * work is ended by whoever leaves, or asks anew.
 */
@Injectable({ providedIn: 'root' })
export class MatchTeller {
  private idle: Worker | undefined;

  tell<Q extends MatchQuestion>(question: Q, ask: MatchQuestions[Q]['ask']): Observable<MatchQuestions[Q]['answer']> {
    return new Observable((heard) => {
      const worker = this.idle ?? new Worker(new URL('./match.worker', import.meta.url), { type: 'module' });
      this.idle = undefined;
      let isAtWork = true;
      worker.onmessage = ({ data }: MessageEvent<MatchQuestions[Q]['answer']>) => {
        isAtWork = false;
        if (this.idle) worker.terminate();
        else this.idle = worker;
        heard.next(data);
        heard.complete();
      };
      worker.onerror = (event) => heard.error(new Error(event.message));
      worker.postMessage({ question, ask });
      return () => {
        if (isAtWork) worker.terminate();
      };
    });
  }
}

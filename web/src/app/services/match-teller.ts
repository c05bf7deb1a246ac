import { Injectable } from '@angular/core';
import type { MatchQuestion, MatchQuestions } from '@vestigia/core';
import { Observable } from 'rxjs';

/** Asks the match, each time in a worker of its own; whoever leaves, or asks anew, ends what was being worked out. */
@Injectable({ providedIn: 'root' })
export class MatchTeller {
  tell<Q extends MatchQuestion>(question: Q, ask: MatchQuestions[Q]['ask']): Observable<MatchQuestions[Q]['answer']> {
    return new Observable((heard) => {
      const worker = new Worker(new URL('./match.worker', import.meta.url), { type: 'module' });
      worker.onmessage = ({ data }: MessageEvent<MatchQuestions[Q]['answer']>) => {
        heard.next(data);
        heard.complete();
      };
      worker.onerror = (event) => heard.error(new Error(event.message));
      worker.postMessage({ question, ask });
      return () => worker.terminate();
    });
  }
}

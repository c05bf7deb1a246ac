import { Injectable } from '@angular/core';
import type { Learning, MatchQuestion, MatchQuestions } from '@vestigia/core';
import type { Subscriber } from 'rxjs';
import { Observable, Subject } from 'rxjs';

/** What nobody waits for any more is let go of after so long: whoever changes a figure asks again at once. */
const LET_GO_MS = 3000;

type Answered =
  { readonly id: number; readonly answer: unknown } | { readonly id: number; readonly learning: Learning };

/**
 * Asks the match, in one worker: it keeps in mind what it learnt, so the next question is answered by that. It is ended
 * while it works on what nobody waits for any more.
 */
@Injectable({ providedIn: 'root' })
export class MatchTeller {
  /** How far a record is learnt, while one is. */
  readonly learning = new Subject<Learning | undefined>();
  private worker: Worker | undefined;
  private nextId = 0;
  /** What was asked and not answered; `undefined`: nobody waits for it any more. */
  private readonly asked = new Map<number, Subscriber<unknown> | undefined>();
  private letGo: ReturnType<typeof setTimeout> | undefined;

  tell<Q extends MatchQuestion>(question: Q, ask: MatchQuestions[Q]['ask']): Observable<MatchQuestions[Q]['answer']> {
    return new Observable<unknown>((heard) => {
      const id = (this.nextId += 1);
      this.asked.set(id, heard);
      clearTimeout(this.letGo);
      this.atWork().postMessage({ id, asked: { question, ask } });
      return () => {
        if (this.asked.get(id) === heard) this.asked.set(id, undefined);
        this.endIfIdle();
      };
    }) as Observable<MatchQuestions[Q]['answer']>;
  }

  private atWork(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(new URL('./match.worker', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<Answered>) => {
      const { id } = data;
      if ('learning' in data) {
        // Whoever waits behind it waits for that as well.
        if (this.asked.has(id)) this.learning.next(data.learning);
        return;
      }
      const heard = this.asked.get(id);
      this.asked.delete(id);
      this.learning.next(undefined);
      heard?.next(data.answer);
      heard?.complete();
    };
    worker.onerror = (event) => {
      const waiting = [...this.asked.values()];
      this.end();
      for (const heard of waiting) heard?.error(new Error(event.message));
    };
    this.worker = worker;
    return worker;
  }

  /** At work, and for nobody. */
  private endIfIdle(): void {
    clearTimeout(this.letGo);
    const isForNobody = (): boolean => this.asked.size > 0 && [...this.asked.values()].every((h) => h === undefined);
    if (isForNobody())
      this.letGo = setTimeout(() => {
        if (isForNobody()) this.end();
      }, LET_GO_MS);
  }

  private end(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.learning.next(undefined);
    this.asked.clear();
  }
}

import type { Signal } from '@angular/core';
import { assertInInjectionContext, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { Learning, MatchQuestion, MatchQuestions } from '@vestigia/core';
import { BehaviorSubject, catchError, combineLatest, debounceTime, map, of, scan, startWith, switchMap } from 'rxjs';
import { MatchTeller } from './match-teller';

/** It was asked, and could not be worked out. */
const UNTOLD = 'untold';

interface Told<Q extends MatchQuestion> {
  readonly ask: MatchQuestions[Q]['ask'];
  readonly answer: MatchQuestions[Q]['answer'];
}

/** A question put to the match for as long as a page is open: asked anew whenever what it asks about changes. */
export interface MatchAsked<Q extends MatchQuestion> {
  /**
   * What was asked with what was answered. Asked the same of a record that only grew, what was told stays until the new
   * answer is there; else nothing is told while it is worked out.
   */
  readonly told: Signal<Told<Q> | undefined>;
  readonly answer: Signal<MatchQuestions[Q]['answer'] | undefined>;
  /** It could not be worked out. */
  readonly isUntold: Signal<boolean>;
  /** How far the record is learnt that it is worked out from; nothing once it is told. */
  readonly learning: Signal<Learning | undefined>;
  /** Somebody would not wait for it. */
  readonly isStopped: Signal<boolean>;
  stop(): void;
  askAgain(): void;
}

/** What comes of the record, and changes with every reading and every day, whoever asks. */
const OF_THE_RECORD = ['readings', 'strengths', 'shelf', 'waters', 'baseLots', 'ageYears'];

/** Whether the same is asked of another record. */
function isSame(x: unknown, y: unknown): boolean {
  const about = (ask: unknown): string =>
    JSON.stringify(ask, (key, value: unknown) => (OF_THE_RECORD.includes(key) ? undefined : value));
  return about(x) === about(y);
}

/**
 * Puts a question. Call in a field initialiser.
 * @param ask `undefined`: not yet @param settleMs what is asked about must have stood so long, where somebody may be typing
 */
export function askMatch<Q extends MatchQuestion>(
  question: Q,
  ask: Signal<MatchQuestions[Q]['ask'] | undefined>,
  settleMs = 0,
): MatchAsked<Q> {
  assertInInjectionContext(askMatch);
  const teller = inject(MatchTeller);
  const asks = toObservable(ask);
  const isWanted = new BehaviorSubject(true);
  const isStopped = signal(false);
  type Heard = { readonly ask: MatchQuestions[Q]['ask']; readonly answer?: MatchQuestions[Q]['answer'] };
  const heard = toSignal(
    combineLatest([settleMs > 0 ? asks.pipe(debounceTime(settleMs)) : asks, isWanted]).pipe(
      switchMap(([about, wanted]) =>
        about === undefined || !wanted
          ? of(undefined)
          : teller.tell(question, about).pipe(
              map((answer): Heard => ({ ask: about, answer })),
              startWith<Heard | typeof UNTOLD>({ ask: about }),
              catchError(() => of<typeof UNTOLD>(UNTOLD)),
            ),
      ),
      scan((before: Heard | typeof UNTOLD | undefined, now: Heard | typeof UNTOLD | undefined) =>
        isAsked(now) && isTold(before) && isSame(before.ask, now.ask) ? before : now,
      ),
    ),
  );
  const told = computed(() => {
    const now = heard();
    return isTold(now) ? (now as Told<Q>) : undefined;
  });
  const want = (wanted: boolean): void => {
    isStopped.set(!wanted);
    isWanted.next(wanted);
  };
  return {
    told,
    answer: computed(() => told()?.answer),
    isUntold: computed(() => heard() === UNTOLD),
    learning: toSignal(teller.learning),
    isStopped,
    stop: () => want(false),
    askAgain: () => want(true),
  };
}

const isAsked = (now: object | string | undefined): now is { readonly ask: unknown } =>
  typeof now === 'object' && !('answer' in now);
const isTold = (now: object | string | undefined): now is { readonly ask: unknown; readonly answer: unknown } =>
  typeof now === 'object' && 'answer' in now;

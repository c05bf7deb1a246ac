import type { Signal } from '@angular/core';
import { assertInInjectionContext, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { MatchQuestion, MatchQuestions } from '@vestigia/core';
import { catchError, debounceTime, map, of, startWith, switchMap } from 'rxjs';
import { MatchTeller } from './match-teller';

/** It was asked, and could not be worked out. */
const UNTOLD = 'untold';

/** A question put to the match for as long as a page is open: asked anew whenever what it asks about changes. */
export interface MatchAsked<Q extends MatchQuestion> {
  /** What was asked with what was answered; nothing while it is worked out. */
  readonly told: Signal<
    { readonly ask: MatchQuestions[Q]['ask']; readonly answer: MatchQuestions[Q]['answer'] } | undefined
  >;
  readonly answer: Signal<MatchQuestions[Q]['answer'] | undefined>;
  /** It could not be worked out. */
  readonly isUntold: Signal<boolean>;
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
  const heard = toSignal(
    (settleMs > 0 ? asks.pipe(debounceTime(settleMs)) : asks).pipe(
      switchMap((about) =>
        about === undefined
          ? of(undefined)
          : teller.tell(question, about).pipe(
              map((answer) => ({ ask: about, answer })),
              catchError(() => of<typeof UNTOLD>(UNTOLD)),
              startWith(undefined),
            ),
      ),
    ),
  );
  const told = computed(() => {
    const now = heard();
    return now === UNTOLD ? undefined : now;
  });
  return { told, answer: computed(() => told()?.answer), isUntold: computed(() => heard() === UNTOLD) };
}

import type { Signal } from '@angular/core';
import { DestroyRef, assertInInjectionContext, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { Observable } from 'rxjs';
import type { ShownProblem } from './api-client';

/**
 * One action of a page: never twice at once, never cancelled by the next touch, its refusal kept until the next try.
 */
export interface PageAction {
  readonly busy: Signal<boolean>;
  readonly problem: Signal<ShownProblem | undefined>;
  /** How often it succeeded. */
  readonly done: Signal<number>;
  run<T>(action: Observable<T>, then?: (reply: T) => void): void;
  clear(): void;
}

/** Call in a field initialiser. */
export function pageAction(): PageAction {
  assertInInjectionContext(pageAction);
  const destroyed = inject(DestroyRef);
  const busy = signal(false);
  const problem = signal<ShownProblem | undefined>(undefined);
  const done = signal(0);
  return {
    done: done.asReadonly(),
    busy: busy.asReadonly(),
    problem: problem.asReadonly(),
    clear: () => problem.set(undefined),
    run(action, then) {
      if (busy()) return;
      busy.set(true);
      problem.set(undefined);
      action.pipe(takeUntilDestroyed(destroyed)).subscribe({
        next: (reply) => {
          busy.set(false);
          done.update((n) => n + 1);
          then?.(reply);
        },
        error: (p: ShownProblem) => {
          busy.set(false);
          problem.set(p);
        },
      });
    },
  };
}

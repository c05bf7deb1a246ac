import type { Topic } from '@vestigia/contract';
import type { Signal } from '@angular/core';
import { DestroyRef, Injectable, assertInInjectionContext, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import type { Observable } from 'rxjs';
import { EMPTY, Subject, auditTime, catchError, filter, merge, switchMap, tap } from 'rxjs';
import type { ShownProblem } from './api-client';
import { ApiClient } from './api-client';
import { ServerClock } from './server-clock';

const AGAIN_AFTER_MS = 3000;

/**
 * Changes told by the server, from this browser and every other. Reconnects by itself; after a gap everything is read
 * again.
 */
@Injectable({ providedIn: 'root' })
export class LiveChanges {
  private readonly clock = inject(ServerClock);
  readonly connected = signal(true);
  private readonly changedTopics = new Subject<readonly Topic[]>();
  private source: EventSource | undefined;
  private wanted = false;
  private wasLost = false;
  private readonly api = inject(ApiClient);

  constructor() {
    // A browser allows a server six lines over all its tabs: one that nobody looks at gives its line up, and reads
    // anew when it is looked at again.
    document.addEventListener('visibilitychange', () => (document.hidden ? this.hangUp() : this.resume()));
    window.addEventListener('pagehide', () => this.hangUp());
    window.addEventListener('pageshow', (event) => event.persisted && this.resume());
  }

  listen(topics: readonly Topic[]): Observable<readonly Topic[]> {
    this.wanted = true;
    this.open();
    return this.changedTopics.pipe(
      filter((changed) => changed.length === 0 || changed.some((t) => topics.includes(t))),
      auditTime(80),
    );
  }

  close(): void {
    this.wanted = false;
    this.hangUp();
  }

  /** Listens anew, and has everything read again: after somebody came in again. */
  reopen(): void {
    this.hangUp();
    this.resume();
  }

  private hangUp(): void {
    this.source?.close();
    this.source = undefined;
  }

  private resume(): void {
    if (!this.wanted || this.source) return;
    this.open();
    this.changedTopics.next([]);
  }

  private open(): void {
    if (this.source) return;
    const source = new EventSource('/api/events');
    this.source = source;
    source.addEventListener('changed', (event: MessageEvent<string>) =>
      this.changedTopics.next((JSON.parse(event.data) as { topics: Topic[] }).topics),
    );
    source.addEventListener('hello', (event: MessageEvent<string>) => {
      this.clock.set((JSON.parse(event.data) as { now?: string }).now ?? '');
      this.connected.set(true);
      if (this.wasLost) this.changedTopics.next([]);
      this.wasLost = false;
    });
    source.addEventListener('error', () => {
      this.wasLost = true;
      this.connected.set(false);
      // A line that was refused isn't tried again by the browser: the session ended, or the server can't serve just now.
      if (source.readyState === EventSource.CLOSED) this.openAgain(source);
    });
  }

  /** Asks who is in, so that whoever isn't is asked to come in again, and listens anew after a while. */
  private openAgain(refused: EventSource): void {
    if (this.source !== refused) return;
    this.source = undefined;
    this.api.get('/api/sessions').subscribe({ error: () => undefined });
    setTimeout(() => {
      if (this.wanted && !this.source && !document.hidden) this.open();
    }, AGAIN_AFTER_MS);
  }
}

/** Something read from the server that stays true: read again when the server says it changed. */
export interface LiveQuery<T> {
  readonly value: Signal<T | undefined>;
  readonly problem: Signal<ShownProblem | undefined>;
  reload(): void;
}

/** Call in a field initialiser. Reads again when `key` gives another value, when a topic changes, and on `reload`. */
export function liveQuery<T>(
  topics: readonly Topic[],
  read: () => Observable<T>,
  key: () => unknown = () => 0,
): LiveQuery<T> {
  assertInInjectionContext(liveQuery);
  const value = signal<T | undefined>(undefined);
  const problem = signal<ShownProblem | undefined>(undefined);
  const again = new Subject<void>();
  const changes = inject(LiveChanges);
  const destroyed = inject(DestroyRef);
  const keyed = toObservable(computed(key)).pipe(tap(() => value.set(undefined)));
  merge(keyed, changes.listen(topics), again)
    .pipe(
      switchMap(() =>
        read().pipe(
          tap(() => problem.set(undefined)),
          catchError((p: ShownProblem) => {
            problem.set(p);
            return EMPTY;
          }),
        ),
      ),
      takeUntilDestroyed(destroyed),
    )
    .subscribe((next) => value.set(next));
  return { value: value.asReadonly(), problem: problem.asReadonly(), reload: () => again.next() };
}

import { Injectable, inject, signal } from '@angular/core';
import type { SignedIn } from '@vestigia/contract';
import type { Role } from '@vestigia/core';
import { SHOWN_AT_FIRST, mayAs, showFiguresIn } from '@vestigia/core';
import type { Observable } from 'rxjs';
import { catchError, of, switchMap, tap } from 'rxjs';
import { ApiClient } from './api-client';
import { forgetDrafts } from './forget-drafts';
import { LiveChanges } from './live-query';
import { pageLanguage } from './page-language';

/** Who is in, and in whose studio. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(ApiClient);
  private readonly changes = inject(LiveChanges);
  readonly person = signal<SignedIn | null>(null);
  readonly studioName = signal('');
  /** IANA name of where the studio stands. */
  readonly zone = signal('UTC');

  /** Whether whoever is in may do what needs at least that. */
  may(needs: Role): boolean {
    return mayAs(this.person()?.role ?? 'guest', needs);
  }

  look() {
    // Who left while the server was away left: the server hears of it before it is asked anything else.
    const first = localStorage.getItem(LEFT) === null ? of(undefined) : this.tellLeft();
    return first.pipe(
      switchMap(() => this.api.get('/api/auth')),
      tap((authState) => {
        // Whoever came in may read another language than whoever was here before.
        if (authState.language === pageLanguage()) sessionStorage.removeItem(READ_ANEW);
        else this.readAnew(authState.language);
        this.person.set(authState.person);
        this.studioName.set(authState.studio?.name ?? '');
        this.zone.set(authState.studio?.zone ?? 'UTC');
        showFiguresIn(authState.studio?.shownIn ?? SHOWN_AT_FIRST);
      }),
    );
  }

  /** Each language is a page of its own. A page of the tests, or one whose server answers otherwise, is left alone. */
  private readAnew(language: string): void {
    if (sessionStorage.getItem(READ_ANEW) === language) return;
    sessionStorage.setItem(READ_ANEW, language);
    location.reload();
  }

  /** Leaves here and now, with the server or without; it is told when it can be. */
  leave(): Observable<unknown> {
    localStorage.setItem(LEFT, 'yes');
    this.changes.close();
    this.person.set(null);
    return this.tellLeft().pipe(
      catchError(() => of(undefined)),
      switchMap(() => forgetRead()),
    );
  }

  private tellLeft(): Observable<unknown> {
    return this.api.delete('/api/auth/session').pipe(tap(() => localStorage.removeItem(LEFT)));
  }
}

/** For which language this page was read anew and isn’t yet in it: it isn’t read anew on and on. */
const READ_ANEW = 'vestigia-read-anew';
/** Somebody left and the server hasn’t heard of it. */
const LEFT = 'vestigia-left';

/** Whoever left takes what was read along: nothing of the studio stays at hand in the tablet. */
async function forgetRead(): Promise<void> {
  forgetDrafts();
  if (!('caches' in window)) return;
  for (const name of await caches.keys()) {
    const kept = await caches.open(name);
    for (const request of await kept.keys())
      if (new URL(request.url).pathname.startsWith('/api/')) await kept.delete(request);
  }
}

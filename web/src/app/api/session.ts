import { Injectable, inject, signal } from '@angular/core';
import type { Person } from '@vestigia/contract';
import type { Observable } from 'rxjs';
import { tap } from 'rxjs';
import { ApiClient } from './api-client';
import { LiveChanges } from './live-query';

/** Who is in, and in whose studio. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(ApiClient);
  private readonly changes = inject(LiveChanges);
  readonly person = signal<Person | null>(null);
  readonly studioName = signal('');
  /** IANA name of where the studio stands. */
  readonly zone = signal('UTC');

  look() {
    return this.api.get('/api/auth').pipe(
      tap((authState) => {
        this.person.set(authState.person);
        this.studioName.set(authState.studio?.name ?? '');
        this.zone.set(authState.studio?.zone ?? 'UTC');
      }),
    );
  }

  leave(): Observable<unknown> {
    return this.api.delete('/api/auth/session').pipe(
      tap(() => {
        this.changes.close();
        this.person.set(null);
        void forgetRead();
      }),
    );
  }
}

/** Whoever left takes what was read along: nothing of the studio stays at hand in the tablet. */
async function forgetRead(): Promise<void> {
  if (!('caches' in window)) return;
  for (const name of await caches.keys()) {
    const kept = await caches.open(name);
    for (const request of await kept.keys())
      if (new URL(request.url).pathname.startsWith('/api/')) await kept.delete(request);
  }
}

import { Injectable, inject, signal } from '@angular/core';
import type { Person } from '@vestigia/contract';
import type { Observable } from 'rxjs';
import { tap } from 'rxjs';
import { ApiClient } from './api-client';
import { LiveChanges } from './live';

/** Who is in, and in whose studio. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(ApiClient);
  private readonly changes = inject(LiveChanges);
  readonly person = signal<Person | null>(null);
  readonly studioName = signal('');

  look() {
    return this.api.get('/api/door').pipe(
      tap((door) => {
        this.person.set(door.person);
        this.studioName.set(door.studio?.name ?? '');
      }),
    );
  }

  leave(): Observable<unknown> {
    return this.api.delete('/api/door/session').pipe(
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

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
    return this.api.get('/api/door').pipe(tap((door) => {
      this.person.set(door.person);
      this.studioName.set(door.studio?.name ?? '');
    }));
  }

  leave(): Observable<unknown> {
    return this.api.delete('/api/door/session').pipe(tap(() => {
      this.changes.close();
      this.person.set(null);
    }));
  }
}

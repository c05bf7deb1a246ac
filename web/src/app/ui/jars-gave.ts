import type { Signal } from '@angular/core';
import { assertInInjectionContext, computed, inject } from '@angular/core';
import type { JarGave } from '@vestigia/contract';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';

/** What each jar, and each material by its jars, gave last. Comes after the list it stands in, which doesn't wait. */
export interface Gave {
  readonly byJar: ReadonlyMap<string, JarGave>;
  readonly byMaterial: ReadonlyMap<string, JarGave>;
}

/** Call in a field initialiser. */
export function jarsGave(): Signal<Gave> {
  assertInInjectionContext(jarsGave);
  const api = inject(ApiClient);
  const rows = liveQuery(['lots'], () => api.get('/api/colours/jars'));
  return computed(() => {
    // Newest lot first: turned round, the newest stands last and stays.
    const oldestFirst = [...(rows.value() ?? [])].reverse();
    return {
      byJar: new Map(oldestFirst.map((r) => [r.stockLotId, r])),
      byMaterial: new Map(oldestFirst.map((r) => [r.materialId, r])),
    };
  });
}

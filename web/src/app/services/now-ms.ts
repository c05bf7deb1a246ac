import type { Signal } from '@angular/core';
import { DestroyRef, assertInInjectionContext, inject, signal } from '@angular/core';
import { ServerClock } from '../api/server-clock';

const TICK_MS = 15_000;

/** The server's time, epoch ms, going on while the page stands there. Call in a field initialiser. */
export function nowMs(): Signal<number> {
  assertInInjectionContext(nowMs);
  const clock = inject(ServerClock);
  const now = signal(clock.now());
  const timer = setInterval(() => now.set(clock.now()), TICK_MS);
  inject(DestroyRef).onDestroy(() => clearInterval(timer));
  return now.asReadonly();
}

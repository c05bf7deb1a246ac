import { Injectable, computed, signal } from '@angular/core';

export interface Alarm {
  readonly key: string;
  readonly message: string;
  /** Where it can be dealt with. */
  readonly path: string;
  /** Only a rehearsal's pot. */
  readonly rehearsal?: boolean;
}

/** What is called out over the page and over other windows. */
export const callOf = (alarms: readonly Alarm[]): string =>
  alarms.every((a) => a.rehearsal) ? $localize`Rehearsal: go to the pot` : $localize`Go to the pot`;

const QUIET_MS = 5 * 60_000;

/** Everything that wants somebody at a pot now, from any page; whoever goes there quiets it for a while. */
@Injectable({ providedIn: 'root' })
export class Alarms {
  private readonly from = signal<ReadonlyMap<string, readonly Alarm[]>>(new Map());
  private readonly quietUntil = signal<ReadonlyMap<string, number>>(new Map());
  private readonly tick = signal(0);
  readonly sounding = computed(() => {
    this.tick();
    const nowMs = Date.now();
    // Two watchers may call for the same thing: it is said once.
    const all = new Map([...this.from().values()].flat().map((a) => [a.key, a] as const));
    return [...all.values()].filter((a) => (this.quietUntil().get(a.key) ?? 0) <= nowMs);
  });

  /** What one watcher has to say; replaces what it said before. */
  set(watcher: string, alarms: readonly Alarm[]): void {
    this.from.update((all) => new Map(all).set(watcher, alarms));
  }

  quiet(): void {
    const until = Date.now() + QUIET_MS;
    this.quietUntil.update((all) => new Map([...all, ...this.sounding().map((a) => [a.key, until] as const)]));
  }

  /** Time has passed: one that was quieted may sound again. */
  look(): void {
    this.tick.update((n) => n + 1);
  }
}

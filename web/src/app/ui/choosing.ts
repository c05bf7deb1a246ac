import type { Signal } from '@angular/core';
import { ElementRef, Injector, afterNextRender, computed, inject, signal } from '@angular/core';

/** Several rows of a list are chosen, to do the same with all of them. */
export interface Choosing<T> {
  readonly on: Signal<boolean>;
  /** Of those in the list: what a narrower search hides is not meant. */
  readonly rows: Signal<readonly T[]>;
  readonly isAll: Signal<boolean>;
  has(id: string): boolean;
  toggle(id: string): void;
  /** Every row of the list, or none where all are chosen. */
  toggleAll(): void;
  /** Begins or ends it: the hand goes to the first box, and back to what began it. */
  turn(on: boolean): void;
}

/** Call in a field initialiser of a page whose list and foot follow it. */
export function choosing<T extends { readonly id: string }>(shown: () => readonly T[]): Choosing<T> {
  const injector = inject(Injector);
  const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  const on = signal(false);
  const ids = signal<ReadonlySet<string>>(new Set());
  const rows = computed(() => shown().filter((row) => ids().has(row.id)));
  const isAll = computed(() => rows().length > 0 && rows().length === shown().length);
  return {
    on: on.asReadonly(),
    rows,
    isAll,
    has: (id) => ids().has(id),
    toggle: (id) =>
      ids.update((chosen) => {
        const now = new Set(chosen);
        if (!now.delete(id)) now.add(id);
        return now;
      }),
    toggleAll: () => ids.set(new Set(isAll() ? [] : shown().map((row) => row.id))),
    turn(wanted) {
      on.set(wanted);
      ids.set(new Set());
      const next = wanted ? 'input[name=choose]' : 'vs-act-bar button.plain';
      afterNextRender(() => host.querySelector<HTMLElement>(next)?.focus(), { injector });
    },
  };
}

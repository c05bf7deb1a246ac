import type { Signal } from '@angular/core';
import { ChangeDetectionStrategy, Component, assertInInjectionContext, computed, input } from '@angular/core';
import { inAddress } from '../services/in-address';

/** A list without what was put away, unless somebody wants to see that too. */
export interface WithoutPutAway<T> {
  readonly shown: Signal<readonly T[]>;
  /** How much is put away. */
  readonly away: Signal<number>;
  readonly too: Signal<boolean>;
  turn(): void;
}

/** Call in a field initialiser. Whether they are shown stands in the address. */
export function withoutPutAway<T extends { readonly putAway: boolean }>(
  all: () => readonly T[] | undefined,
): WithoutPutAway<T> {
  assertInInjectionContext(withoutPutAway);
  const wish = inAddress('away');
  const too = computed(() => wish() === 'too');
  return {
    too,
    shown: computed(() => (all() ?? []).filter((one) => too() || !one.putAway)),
    away: computed(() => (all() ?? []).filter((one) => one.putAway).length),
    turn: () => wish.set(too() ? '' : 'too'),
  };
}

/** The tick that shows what was put away too; nothing where nothing was. */
@Component({
  selector: 'vs-put-away-too',
  template: `@if (list().away() > 0) {
    <label class="tick"
      ><input type="checkbox" name="away" [checked]="list().too()" (change)="list().turn()" />
      <ng-container i18n>{{ list().away() }} put away, too</ng-container></label
    >
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PutAwayToo {
  readonly list = input.required<WithoutPutAway<unknown>>();
}

/** What may be chosen: what isn’t put away, and what is chosen already. */
export const toChoose = <T extends { readonly id: string; readonly putAway: boolean }>(
  all: readonly T[] | undefined,
  chosenId = '',
): T[] => (all ?? []).filter((one) => !one.putAway || one.id === chosenId);

import type { ValueEqualityFn, WritableSignal } from '@angular/core';
import { computed, linkedSignal } from '@angular/core';

/**
 * What a field begins with until somebody writes into it. It is offered anew only where the offer itself is another
 * one: news that bring the same again leave what was written.
 * @param equal where offers are objects, when two of them are the same
 */
export function offered<T>(offer: () => T, equal: ValueEqualityFn<T> = Object.is): WritableSignal<T> {
  const now = computed(offer, { equal });
  return linkedSignal(() => now());
}

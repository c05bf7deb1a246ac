import { Location } from '@angular/common';
import type { WritableSignal } from '@angular/core';
import { effect, inject, signal } from '@angular/core';
import { ActivatedRoute } from '@angular/router';

/**
 * A choice that stands in the address as `?key=value`, so that Back, a copied link and a reload keep it. Nothing stands
 * there for what is chosen at first. It replaces the entry of the history it stands in, and goes nowhere. Call in a field
 * initialiser.
 */
export function inAddress(key: string, first = ''): WritableSignal<string> {
  const location = inject(Location);
  const chosen = signal(inject(ActivatedRoute).snapshot.queryParamMap.get(key) ?? first);
  const route = pathOf(location.path());
  effect(() => {
    const value = chosen();
    const [path = '', query = ''] = location.path().split('?');
    // Somebody who went on meanwhile stands at another address, which is not this one's to change.
    if (path !== route) return;
    const kept = new URLSearchParams(query);
    if (value === first) kept.delete(key);
    else kept.set(key, value);
    const now = kept.toString();
    if (now !== query) location.replaceState(path, now);
  });
  return chosen;
}

const pathOf = (address: string): string => address.split('?')[0] ?? '';

import { Location } from '@angular/common';
import type { WritableSignal } from '@angular/core';
import { DestroyRef, Injectable, effect, inject, signal } from '@angular/core';
import { ActivatedRoute } from '@angular/router';
import { pathOf } from './path-of';

/** What of the page that is open stands in its address. */
@Injectable({ providedIn: 'root' })
export class AddressChoices {
  private readonly live = new Map<string, { chosen: WritableSignal<string>; first: string }>();

  /** Chooses on the page that is open what a query says, and for the rest what is chosen at first. */
  take(query: string): void {
    const said = new URLSearchParams(query);
    for (const [key, { chosen, first }] of this.live) chosen.set(said.get(key) ?? first);
  }

  add(key: string, chosen: WritableSignal<string>, first: string, gone: DestroyRef): void {
    const choice = { chosen, first };
    this.live.set(key, choice);
    gone.onDestroy(() => {
      if (this.live.get(key) === choice) this.live.delete(key);
    });
  }
}

/**
 * A choice that stands in the address as `?key=value`, so that Back, a copied link and a reload keep it. Nothing stands
 * there for what is chosen at first. It replaces the entry of the history it stands in, and goes nowhere. Call in a field
 * initialiser.
 */
export function inAddress(key: string, first = ''): WritableSignal<string> {
  const location = inject(Location);
  const chosen = signal(inject(ActivatedRoute).snapshot.queryParamMap.get(key) ?? first);
  const route = pathOf(location.path());
  inject(AddressChoices).add(key, chosen, first, inject(DestroyRef));
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

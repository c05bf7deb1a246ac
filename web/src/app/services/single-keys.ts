import { Injectable, signal } from '@angular/core';
import { isTyping } from './is-typing';

const KEPT = 'vestigia-single-keys';
const OVER = '[role="dialog"], [role="alertdialog"], [role="menu"], [role="listbox"]';

/**
 * Keys that do something alone, without Ctrl or Alt. Somebody who dictates, or whose hand shakes, switches them off on
 * their tablet. They are never taken from a field, nor while something stands over the page.
 */
@Injectable({ providedIn: 'root' })
export class SingleKeys {
  readonly areOn = signal(localStorage.getItem(KEPT) !== 'off');

  set(on: boolean): void {
    this.areOn.set(on);
    if (on) localStorage.removeItem(KEPT);
    else localStorage.setItem(KEPT, 'off');
  }

  /** Whether this key is one of the page's, not of a field, of the browser or of what stands over the page. */
  isPages(event: KeyboardEvent): boolean {
    return (
      !(event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) &&
      !isTyping(event.target) &&
      document.querySelector(OVER) === null
    );
  }
}

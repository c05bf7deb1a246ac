import { Injectable, signal } from '@angular/core';
import type { Alarm } from './alarms';
import { callOf } from './alarms';

const ASKED = 'vestigia-notices-asked';
/** A notice that is there already is put in its place rather than beside it. */
const TAG = 'vestigia-pot';

/**
 * Tells of a pot that calls while another window lies over this one, where the browser lets it. It is asked for once on
 * a tablet; afterwards whoever wants it otherwise changes it in the browser.
 */
@Injectable({ providedIn: 'root' })
export class PotNotices {
  /** Whether the question still stands: a browser without notices, or on an address it doesn’t trust, isn’t asked. */
  readonly toAsk = signal(
    'Notification' in window && Notification.permission === 'default' && localStorage.getItem(ASKED) === null,
  );
  private said = '';

  /** Asks the browser, which asks whoever sits there. */
  async ask(): Promise<void> {
    this.answer();
    await Notification.requestPermission();
  }

  /** The question is answered, here or elsewhere, and isn’t put again. */
  answer(): void {
    localStorage.setItem(ASKED, 'yes');
    this.toAsk.set(false);
  }

  /** What calls just now; said once for as long as the same does, and only to who doesn’t see the page. */
  async say(alarms: readonly Alarm[]): Promise<void> {
    const now = alarms.map((a) => a.key).join('\n');
    if (now === this.said) return;
    this.said = now;
    if (now === '' || !('Notification' in window) || Notification.permission !== 'granted' || document.hasFocus())
      return;
    const title = callOf(alarms);
    const notice = { body: alarms.map((a) => a.message).join('\n'), tag: TAG, data: { path: alarms[0]?.path } };
    // Only the worker may on a telephone; without one the page does it itself.
    const worker = await navigator.serviceWorker?.getRegistration();
    if (worker?.active) await worker.showNotification(title, notice);
    else new Notification(title, notice).onclick = () => window.focus();
  }
}

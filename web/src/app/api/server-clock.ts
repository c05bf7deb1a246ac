import { Injectable } from '@angular/core';

const KEPT = 'vestigia-clock';

/** The server's time, as this tablet knows it: what the server last said, carried on by the tablet's own clock. */
@Injectable({ providedIn: 'root' })
export class ServerClock {
  private aheadMs = Number(localStorage.getItem(KEPT) ?? 0) || 0;

  /** The server said this time just now. */
  set(serverNow: string): void {
    this.aheadMs = Date.parse(serverNow) - Date.now();
    localStorage.setItem(KEPT, String(this.aheadMs));
  }

  now(): number {
    return Date.now() + this.aheadMs;
  }
}

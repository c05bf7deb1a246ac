import { Injectable } from '@angular/core';

const KEPT = 'vestigia-clock';

/** The server's time, as this tablet knows it: what the server last said, carried on by the tablet's own clock. */
@Injectable({ providedIn: 'root' })
export class ServerClock {
  private aheadMs = Number(localStorage.getItem(KEPT) ?? 0) || 0;
  /** What the server said, and this page's steady clock then: a tablet set meanwhile changes nothing. */
  private said: { readonly serverMs: number; readonly steadyMs: number } | undefined;

  /** The server said this time just now. */
  set(serverNow: string): void {
    const serverMs = Date.parse(serverNow);
    if (!Number.isFinite(serverMs)) return;
    this.said = { serverMs, steadyMs: performance.now() };
    this.aheadMs = serverMs - Date.now();
    localStorage.setItem(KEPT, String(this.aheadMs));
  }

  now(): number {
    return this.said
      ? Math.round(this.said.serverMs + performance.now() - this.said.steadyMs)
      : Date.now() + this.aheadMs;
  }
}

import { ApplicationRef, Injectable, inject, signal } from '@angular/core';

/** Whether the page is being put on paper: a list that shows only what is in sight stands there whole then. */
@Injectable({ providedIn: 'root' })
export class Printing {
  private readonly app = inject(ApplicationRef);
  private readonly printing = signal(false);
  readonly on = this.printing.asReadonly();

  constructor() {
    window.addEventListener('beforeprint', () => this.draw(true));
    window.addEventListener('afterprint', () => this.draw(false));
  }

  /** The browser takes the page as it stands when its event was answered, so it is drawn at once. */
  private draw(printing: boolean): void {
    this.printing.set(printing);
    this.app.tick();
  }
}

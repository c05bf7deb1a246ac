import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { PLACE_HELP } from './place-help';

const KEPT = 'vestigia-tour';

/** A round through the places for somebody new, a stop at a time. It goes on after a reload, and is left at any stop. */
@Component({
  selector: 'vs-tour',
  template: `@if (stop(); as s) {
    <section class="tour" aria-label="The tour" i18n-aria-label aria-live="polite">
      <p>
        <strong i18n>{{ at() + 1 }} of {{ stops.length }}: {{ s.name }}.</strong> {{ s.is }}
      </p>
      <p>{{ s.look }}</p>
      <div class="actions">
        @if (next(); as n) {
          <button i18n class="act main" type="button" (click)="go(at() + 1)">Next: {{ n.name }}</button>
        }
        @if (at() > 0) {
          <button i18n class="act" type="button" (click)="go(at() - 1)">Back to {{ stops[at() - 1]?.name }}</button>
        }
        <button class="act" type="button" (click)="end()">{{ next() ? says.leaveTheTour : says.endTheTour }}</button>
      </div>
    </section>
  }`,
  styles: `
    .tour {
      border: 3px solid var(--ink);
      background: var(--raised);
      margin: 0.75rem 1.75rem 0;
      padding: 0.5rem 1rem;
    }
    p {
      margin: 0.25rem 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Tour {
  /** What its template says by what holds. */
  protected readonly says = {
    leaveTheTour: $localize`Leave the tour`,
    endTheTour: $localize`End the tour`,
  };

  private readonly router = inject(Router);
  protected readonly stops = PLACE_HELP;
  /** Which stop it is at, counted from 0; −1 while nobody is on it. */
  protected readonly at = signal(Number(sessionStorage.getItem(KEPT) ?? -1));
  protected readonly stop = computed(() => this.stops[this.at()]);
  protected readonly next = computed(() => this.stops[this.at() + 1]);

  begin(): void {
    this.go(0);
  }

  protected go(at: number): void {
    const stop = this.stops[at];
    if (!stop) return;
    this.at.set(at);
    sessionStorage.setItem(KEPT, String(at));
    void this.router.navigateByUrl(stop.path);
  }

  protected end(): void {
    this.at.set(-1);
    sessionStorage.removeItem(KEPT);
  }
}

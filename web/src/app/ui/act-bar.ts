import type { AfterViewInit, OnDestroy } from '@angular/core';
import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, input } from '@angular/core';
import { NgForm } from '@angular/forms';
import { JustKept } from '../api/just-kept';

/**
 * The foot of a sheet or of a form: the one thing to do there, in sight however long it is, and in words what is still
 * missing for it, or for a moment that it is kept.
 */
@Component({
  selector: 'vs-act-bar',
  template: `<ng-content /> <span class="missing" role="status">{{ said() }}</span>`,
  host: { class: 'noprint' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ActBar implements AfterViewInit, OnDestroy {
  readonly missing = input('');
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** How high it is, for whoever holds it at the foot: on a telephone its buttons stand in several rows. */
  private readonly watch =
    'ResizeObserver' in window
      ? new ResizeObserver(() => this.host.style.setProperty('--own-height', `${this.host.offsetHeight}px`))
      : undefined;
  private readonly form = inject(NgForm, { optional: true });
  private readonly justKept = inject(JustKept);
  protected readonly said = computed(() =>
    this.form && this.justKept.hasForm(this.form) ? $localize`Kept.` : this.missing(),
  );

  ngAfterViewInit(): void {
    this.watch?.observe(this.host);
  }

  ngOnDestroy(): void {
    this.watch?.disconnect();
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';
import { pageAction } from '../api/page-action';
import { CopyLink } from './copy-link';
import { RefusalNote } from './refusal';

/** Keeps the page it stands on at hand: a link to it on Today, for whoever pressed it. */
@Component({
  selector: 'vs-at-hand',
  imports: [CopyLink, RefusalNote],
  template: `@if (pages.value()) {
      <button class="plain noprint" type="button" [disabled]="changing.busy()" (click)="turn()">
        {{ isAtHand() ? says.atHandOnToday : says.keepAtHand }}
      </button>
    }
    <vs-copy-link />
    <vs-refusal [problem]="changing.problem()" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AtHand {
  /** What its template says by what holds. */
  protected readonly says = {
    atHandOnToday: $localize`At hand on Today: let go`,
    keepAtHand: $localize`Keep at hand`,
  };

  private readonly api = inject(ApiClient);
  readonly path = input.required<string>();
  /** What it is called on Today. */
  readonly name = input.required<string>();
  protected readonly changing = pageAction();
  protected readonly pages = liveQuery(['studio'], () => this.api.get('/api/at-hand'));
  protected readonly isAtHand = computed(() => this.pages.value()?.some((p) => p.path === this.path()) ?? false);

  protected turn(): void {
    const body = { path: this.path(), title: this.name(), keep: !this.isAtHand() };
    this.changing.run(this.api.put('/api/at-hand', body), () => this.pages.reload());
  }
}
